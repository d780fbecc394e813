/**
 * What packages bring besides definitions of data and logic: roles, views and records, read by
 * {@link sandpiper.model.brought.BroughtReader}.
 */
@NullMarked
package sandpiper.model.brought;

import org.jspecify.annotations.NullMarked;
