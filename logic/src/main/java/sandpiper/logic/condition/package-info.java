/**
 * What of the language a store can answer. {@link sandpiper.logic.condition.Selections} finds in
 * logic the records it asks for; it comes to a {@link sandpiper.logic.condition.Condition}, which a
 * store turns into its own query language. An answer is the same as in memory.
 */
@NullMarked
package sandpiper.logic.condition;

import org.jspecify.annotations.NullMarked;
