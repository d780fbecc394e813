/**
 * Reads the text of an expression into a tree. Start at {@link sandpiper.logic.syntax.Parser}.
 *
 * <p>Follows FEEL, DMN 1.5 §10.3.1. Reading never throws on bad text: what cannot be read becomes a
 * problem, and the rest is still read. Knows nothing of types.
 */
@NullMarked
package sandpiper.logic.syntax;

import org.jspecify.annotations.NullMarked;
