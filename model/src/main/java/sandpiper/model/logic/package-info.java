/**
 * The logic of a release, compiled: what works itself out, what must hold, what happens when. Start
 * at {@link sandpiper.model.logic.ReleaseLogic}.
 *
 * <p>{@link sandpiper.model.logic.LogicCompiler} finds what is wrong with it beforehand. {@link
 * sandpiper.model.logic.Watch} says which derived fields of which records must be worked out again
 * when a field somewhere changes.
 */
@NullMarked
package sandpiper.model.logic;

import org.jspecify.annotations.NullMarked;
