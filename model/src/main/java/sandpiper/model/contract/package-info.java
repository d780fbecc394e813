/**
 * What things of a service are called in its contracts, and whether two would be called the same:
 * {@link sandpiper.model.contract.ContractNames}.
 */
@NullMarked
package sandpiper.model.contract;

import org.jspecify.annotations.NullMarked;
