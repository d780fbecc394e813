/**
 * Routes: what documents are made from which others, and the fields that travel along with them.
 * Routes are read by {@link sandpiper.model.route.RouteReader}; {@link
 * sandpiper.model.route.TravellingFields} makes the fields.
 */
@NullMarked
package sandpiper.model.route;

import org.jspecify.annotations.NullMarked;
