/**
 * Requests over OData before they are looked at: which version and which form is meant, and whether
 * all of it can be followed. {@link sandpiper.server.odata.request.RequestForm} is the way in.
 */
@NullMarked
package sandpiper.server.odata.request;

import org.jspecify.annotations.NullMarked;
