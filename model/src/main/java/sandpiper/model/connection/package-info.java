/**
 * Connections: outside services that give values. {@link sandpiper.model.connection.ConnectionType}
 * is what a release knows of one.
 */
@NullMarked
package sandpiper.model.connection;

import org.jspecify.annotations.NullMarked;
