/**
 * Keeps everything in one SQLite file. Start at {@link sandpiper.store.SqliteStorage}. Records are
 * real rows in real columns; SQL is rendered by jOOQ once for each release and query shape, and run
 * on statements that are kept. Knows nothing of rules.
 */
@NullMarked
package sandpiper.store;

import org.jspecify.annotations.NullMarked;
