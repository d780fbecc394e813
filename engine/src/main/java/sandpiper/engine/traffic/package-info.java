/**
 * How services are called: {@link sandpiper.engine.traffic.CallCounts} by day, {@link
 * sandpiper.engine.traffic.KeptTraces} with the account of single requests.
 */
@NullMarked
package sandpiper.engine.traffic;

import org.jspecify.annotations.NullMarked;
