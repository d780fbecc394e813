/**
 * Calls that go out: which addresses may be called ({@link sandpiper.server.outgoing.Targets}), and
 * a client of HTTP whose every wait has an end ({@link sandpiper.server.outgoing.OutgoingHttp}).
 */
@NullMarked
package sandpiper.server.outgoing;

import org.jspecify.annotations.NullMarked;
