/**
 * Services: what of objects is shown and taken, and what packages add to each other's. Services are
 * read by {@link sandpiper.model.service.ServiceReader}; {@link
 * sandpiper.model.service.ServiceExtensions} adds to them.
 */
@NullMarked
package sandpiper.model.service;

import org.jspecify.annotations.NullMarked;
