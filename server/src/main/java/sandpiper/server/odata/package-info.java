/**
 * Services over OData 4.01. {@link sandpiper.server.odata.ODataCalls} takes the requests, {@link
 * sandpiper.server.odata.metadata.ServiceModel} is what there is to ask for; addresses, metadata
 * and batches are read and written by a library, entities here.
 */
@NullMarked
package sandpiper.server.odata;

import org.jspecify.annotations.NullMarked;
