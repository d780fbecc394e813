/**
 * Checks packages of definition files and compiles them to a release. Start at {@link
 * sandpiper.model.check.Definitions}.
 */
@NullMarked
package sandpiper.model.check;

import org.jspecify.annotations.NullMarked;
