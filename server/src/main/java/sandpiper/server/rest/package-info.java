/**
 * Services over REST: {@link sandpiper.server.rest.ServiceCallMapping} knows their addresses,
 * {@link sandpiper.server.rest.RestCalls} answers the calls.
 */
@NullMarked
package sandpiper.server.rest;

import org.jspecify.annotations.NullMarked;
