/**
 * Reading records: {@link sandpiper.engine.read.RecordFinder} finds one by its key, {@link
 * sandpiper.engine.read.PlainRecords} gives them their form for a protocol, and {@link
 * sandpiper.engine.read.FigureGroups} puts counts and sums of many into groups.
 */
@NullMarked
package sandpiper.engine.read;

import org.jspecify.annotations.NullMarked;
