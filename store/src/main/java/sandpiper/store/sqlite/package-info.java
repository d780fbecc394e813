/**
 * One SQLite file: its connections, who holds it, whether it is sound, and its failures in words.
 * Start at {@link sandpiper.store.sqlite.SqliteDatabase}.
 */
@NullMarked
package sandpiper.store.sqlite;

import org.jspecify.annotations.NullMarked;
