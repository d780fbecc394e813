/**
 * Contracts: the OpenAPI document of a service. Start at {@link
 * sandpiper.server.contract.OpenApiContract}.
 */
@NullMarked
package sandpiper.server.contract;

import org.jspecify.annotations.NullMarked;
