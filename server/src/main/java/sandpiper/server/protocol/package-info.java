/**
 * The protocols in which services are spoken: where each answers, and how each says what went
 * wrong. Start at {@link sandpiper.server.protocol.Protocol}.
 */
@NullMarked
package sandpiper.server.protocol;

import org.jspecify.annotations.NullMarked;
