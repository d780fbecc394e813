/** Services over REST. Start at {@link sandpiper.server.rest.RestController}. */
@NullMarked
package sandpiper.server.rest;

import org.jspecify.annotations.NullMarked;
