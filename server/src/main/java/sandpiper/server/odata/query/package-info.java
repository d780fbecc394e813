/**
 * What requests over OData ask for: {@link sandpiper.server.odata.query.FilterText} brings {@code
 * $filter} to the language of conditions, {@link sandpiper.server.odata.query.AppliedGroups} {@code
 * $apply} to groups.
 */
@NullMarked
package sandpiper.server.odata.query;

import org.jspecify.annotations.NullMarked;
