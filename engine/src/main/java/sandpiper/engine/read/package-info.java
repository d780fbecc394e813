/**
 * Reading records: {@link sandpiper.engine.read.Query} says which, {@link
 * sandpiper.engine.read.RecordView} is one of them, {@link sandpiper.engine.read.PlainRecords}
 * turns it into plain values for a protocol.
 */
@NullMarked
package sandpiper.engine.read;

import org.jspecify.annotations.NullMarked;
