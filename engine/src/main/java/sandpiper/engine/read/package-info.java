/**
 * Reading records: {@link sandpiper.engine.read.RecordFinder} finds one by its key, {@link
 * sandpiper.engine.read.PlainRecords} gives them their form for a protocol, and {@link
 * sandpiper.engine.read.Figures} are counts and sums of many.
 */
@NullMarked
package sandpiper.engine.read;

import org.jspecify.annotations.NullMarked;
