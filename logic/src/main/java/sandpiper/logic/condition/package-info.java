/**
 * Checks a condition against a record type and gives it back with every name resolved. Start at
 * {@link sandpiper.logic.condition.ConditionChecker}.
 *
 * <p>A condition is the comparing part of FEEL (DMN 1.5 §10.3.2.13 and §10.3.2.14): what can be
 * asked of stored fields. Truth has three values as there: what cannot be compared is neither true
 * nor false, and a record is kept only when the condition is true.
 */
@NullMarked
package sandpiper.logic.condition;

import org.jspecify.annotations.NullMarked;
