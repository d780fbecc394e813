/**
 * The phase that works out formulas and totals: start at {@link
 * sandpiper.engine.derive.Derivation}. {@link sandpiper.engine.derive.OnReadFormulas} does so on
 * read for what depends on the clock.
 */
@NullMarked
package sandpiper.engine.derive;

import org.jspecify.annotations.NullMarked;
