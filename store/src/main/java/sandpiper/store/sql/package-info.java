/**
 * Talking to SQLite: connections, kept statements, and failures in words. Start at {@link
 * sandpiper.store.sql.Database}.
 */
@NullMarked
package sandpiper.store.sql;

import org.jspecify.annotations.NullMarked;
