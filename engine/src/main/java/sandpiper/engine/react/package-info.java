/**
 * The phase in which rules, functions and handlers act: {@link sandpiper.engine.react.RuleRunner}
 * lets rules react, {@link sandpiper.engine.react.StepActions} does what steps say, {@link
 * sandpiper.engine.react.EventWriter} stores the events that came of it.
 */
@NullMarked
package sandpiper.engine.react;

import org.jspecify.annotations.NullMarked;
