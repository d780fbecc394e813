/**
 * Asks services outside for the engine. {@link sandpiper.server.outside.OutsideAsker} goes the
 * whole way: circuit, request, credentials, tries, and reading what comes.
 */
@NullMarked
package sandpiper.server.outside;

import org.jspecify.annotations.NullMarked;
