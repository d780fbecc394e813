/**
 * Records as they are stored, asked for and shown: {@link sandpiper.engine.record.Query} says
 * which, {@link sandpiper.engine.record.RecordView} is one of them. What the engine and its storage
 * tell each other.
 */
@NullMarked
package sandpiper.engine.record;

import org.jspecify.annotations.NullMarked;
