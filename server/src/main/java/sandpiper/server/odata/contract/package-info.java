/**
 * What people who are signed in are told of a service over OData: its contract, and requests to try
 * it with. Start at {@link sandpiper.server.odata.contract.ODataController}.
 */
@NullMarked
package sandpiper.server.odata.contract;

import org.jspecify.annotations.NullMarked;
