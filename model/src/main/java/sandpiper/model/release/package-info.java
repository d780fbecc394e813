/**
 * What a set of packages comes to once checked: every name resolved, immutable, shared by all
 * requests. Start at {@link sandpiper.model.release.Release}.
 */
@NullMarked
package sandpiper.model.release;

import org.jspecify.annotations.NullMarked;
