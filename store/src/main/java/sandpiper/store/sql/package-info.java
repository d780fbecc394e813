/**
 * Talking to an engine in SQL, whichever it is: sessions, and statements that are rendered for the
 * dialect they are run in. Start at {@link sandpiper.store.sql.SqlSession}; what an engine adds is
 * its {@link sandpiper.store.sql.Dialect} and its {@link sandpiper.store.sql.Link}.
 */
@NullMarked
package sandpiper.store.sql;

import org.jspecify.annotations.NullMarked;
