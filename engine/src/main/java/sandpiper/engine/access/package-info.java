/** Who asks, and what they may do. Start at {@link sandpiper.engine.access.Actor}. */
@NullMarked
package sandpiper.engine.access;

import org.jspecify.annotations.NullMarked;
