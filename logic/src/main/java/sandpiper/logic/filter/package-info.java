/**
 * Reads filters somebody wrote: conditions over one record type that a store can answer. Start at
 * {@link sandpiper.logic.filter.ConditionChecker}.
 */
@NullMarked
package sandpiper.logic.filter;

import org.jspecify.annotations.NullMarked;
