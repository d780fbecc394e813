/**
 * The path of a write: {@link sandpiper.engine.write.Writer} runs commands one after another in
 * shared transactions, {@link sandpiper.engine.write.RecordWrites} carries one out, and the unit of
 * work behind it keeps what changes until all is known to be right.
 */
@NullMarked
package sandpiper.engine.write;

import org.jspecify.annotations.NullMarked;
