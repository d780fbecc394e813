/** How objects and fields are called in the database, and how values become columns. */
@NullMarked
package sandpiper.store.table;

import org.jspecify.annotations.NullMarked;
