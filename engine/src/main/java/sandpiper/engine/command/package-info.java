/**
 * What can be done to records: {@link sandpiper.engine.command.RecordCommand} says what is wanted,
 * {@link sandpiper.engine.command.Outcome} what became of it.
 */
@NullMarked
package sandpiper.engine.command;

import org.jspecify.annotations.NullMarked;
