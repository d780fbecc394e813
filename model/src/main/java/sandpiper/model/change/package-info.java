/**
 * Tells two releases apart, for people who decide and for the store that must follow. Start at
 * {@link sandpiper.model.change.ReleaseChange}.
 */
@NullMarked
package sandpiper.model.change;

import org.jspecify.annotations.NullMarked;
