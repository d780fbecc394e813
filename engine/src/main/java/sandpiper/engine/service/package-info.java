/**
 * What somebody may do with records, by way of a service or of a role: {@link
 * sandpiper.engine.service.OpenedResource} and {@link sandpiper.engine.service.OpenedObject} are
 * what a caller has in hand, {@link sandpiper.engine.service.CommandRights} is the one table both
 * go by.
 */
@NullMarked
package sandpiper.engine.service;

import org.jspecify.annotations.NullMarked;
