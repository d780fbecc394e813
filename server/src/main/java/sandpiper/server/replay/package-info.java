/**
 * What services were asked, kept where the operator allows it, and asked again on copies of the
 * data: {@link sandpiper.server.replay.Replay}.
 */
@NullMarked
package sandpiper.server.replay;

import org.jspecify.annotations.NullMarked;
