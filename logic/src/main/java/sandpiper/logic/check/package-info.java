/**
 * Finds what the names of an expression mean and whether its types fit, or what is wrong with it.
 * Start at {@link sandpiper.logic.check.Checker}; the rest is inside work.
 *
 * <p>Follows DMN 1.5 §10.3 (FEEL); where the standard comes to null at run time the checker says so
 * beforehand. Reads the syntax tree; knows nothing of storage, HTTP or Spring.
 */
@NullMarked
package sandpiper.logic.check;

import org.jspecify.annotations.NullMarked;
