/**
 * The entity model of a service: {@link sandpiper.server.odata.metadata.ServiceModel} is put
 * together from {@link sandpiper.server.odata.metadata.EntityShapes}.
 */
@NullMarked
package sandpiper.server.odata.metadata;

import org.jspecify.annotations.NullMarked;
