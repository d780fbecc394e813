/** Going by what other processes changed: {@link sandpiper.engine.following.Watch}. */
@NullMarked
package sandpiper.engine.following;

import org.jspecify.annotations.NullMarked;
