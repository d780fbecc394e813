/**
 * Measures the service against one written by hand for the same work, side by side in one run.
 * Start at {@link sandpiper.bench.Bench}.
 */
@NullMarked
package sandpiper.bench;

import org.jspecify.annotations.NullMarked;
