/**
 * Compiled logic against the same logic written by hand in Java, and against two general expression
 * languages. Start at {@link sandpiper.bench.logic.LogicBench}.
 */
@NullMarked
package sandpiper.bench.logic;

import org.jspecify.annotations.NullMarked;
