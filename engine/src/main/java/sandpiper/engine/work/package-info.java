/**
 * What a unit of work holds: {@link sandpiper.engine.work.Workspace} has the records, each once as
 * a {@link sandpiper.engine.work.RecordState}, {@link sandpiper.engine.work.FaultLog} what is wrong
 * with them, and {@link sandpiper.engine.work.Flush} puts them into the tables. Knows nothing of
 * the phases.
 */
@NullMarked
package sandpiper.engine.work;

import org.jspecify.annotations.NullMarked;
