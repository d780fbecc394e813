/**
 * Runs typed trees. {@link sandpiper.logic.run.Compiler} turns one into a tree of small functions
 * over a frame of places, once; {@link sandpiper.logic.run.Code} runs it as often as wanted, under
 * a budget. {@link sandpiper.logic.run.RecordSource} is where records come from.
 */
@NullMarked
package sandpiper.logic.run;

import org.jspecify.annotations.NullMarked;
