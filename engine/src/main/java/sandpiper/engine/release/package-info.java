/**
 * The release that is served: {@link sandpiper.engine.release.LiveRelease} holds what it was
 * compiled to, and is replaced in one step.
 */
@NullMarked
package sandpiper.engine.release;

import org.jspecify.annotations.NullMarked;
