/**
 * Helps while somebody types: {@link sandpiper.logic.assist.Completion} offers what fits at a
 * place, best first, also in text that is not finished; {@link sandpiper.logic.assist.Hover} says
 * what a name means.
 */
@NullMarked
package sandpiper.logic.assist;

import org.jspecify.annotations.NullMarked;
