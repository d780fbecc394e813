/**
 * Connections in the manage API: what they offer, how they are reached, documents they are made
 * from.
 */
@NullMarked
package sandpiper.server.manage.outside;

import org.jspecify.annotations.NullMarked;
