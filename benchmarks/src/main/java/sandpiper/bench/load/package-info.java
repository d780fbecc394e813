/**
 * Load on a service over HTTP/1.1: as fast as it answers, or at a fixed rate. Kept small and close
 * to the socket, since the driver shares the processors with what it measures.
 */
@NullMarked
package sandpiper.bench.load;

import org.jspecify.annotations.NullMarked;
