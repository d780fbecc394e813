/**
 * What every part of the language shares: where something stands in a text and what is wrong with
 * it.
 *
 * <p>Start at {@link sandpiper.logic.LogicProblem}. The language itself is in the packages below:
 * {@code syntax} reads text into a tree, {@code type} names what a value can be, {@code condition}
 * checks a tree against a record type. Nothing here knows of objects, storage, HTTP or Spring.
 */
@NullMarked
package sandpiper.logic;

import org.jspecify.annotations.NullMarked;
