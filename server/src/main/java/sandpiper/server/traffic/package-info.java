/**
 * How services are called: {@link sandpiper.server.traffic.CallNotes} is told during a request what
 * it is about, {@link sandpiper.server.traffic.Traffic} adds calls up.
 */
@NullMarked
package sandpiper.server.traffic;

import org.jspecify.annotations.NullMarked;
