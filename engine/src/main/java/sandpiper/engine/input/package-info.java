/**
 * The phase that takes in what is asked: {@link sandpiper.engine.input.InputReader} reads values,
 * {@link sandpiper.engine.input.InputPhase} puts them into records with what follows from them at
 * once.
 */
@NullMarked
package sandpiper.engine.input;

import org.jspecify.annotations.NullMarked;
