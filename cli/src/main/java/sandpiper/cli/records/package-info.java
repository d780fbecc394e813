/**
 * Commands on records: {@link sandpiper.cli.records.RecordsCommand} and {@link
 * sandpiper.cli.records.CallCommand}.
 */
@NullMarked
package sandpiper.cli.records;

import org.jspecify.annotations.NullMarked;
