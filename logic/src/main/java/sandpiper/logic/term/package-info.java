/**
 * An expression whose names are known and whose types fit: the typed tree. {@code check} makes it,
 * {@code run} compiles it, {@code condition} brings what it can of it down to something a store can
 * answer, and {@link sandpiper.logic.term.Reads} tells what it depends on.
 */
@NullMarked
package sandpiper.logic.term;

import org.jspecify.annotations.NullMarked;
