/** Going by what other processes changed: {@link sandpiper.engine.following.ChangeWatch}. */
@NullMarked
package sandpiper.engine.following;

import org.jspecify.annotations.NullMarked;
