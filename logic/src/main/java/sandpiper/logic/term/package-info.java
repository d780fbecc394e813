/**
 * An expression whose names are known and whose types fit: the typed tree. {@code check} makes it,
 * {@code run} compiles it, and {@code condition} brings what it can of it down to something a store
 * can answer. Start at {@link sandpiper.logic.term.Term}; {@link sandpiper.logic.term.Terms} walks
 * through one.
 */
@NullMarked
package sandpiper.logic.term;

import org.jspecify.annotations.NullMarked;
