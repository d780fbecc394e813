/** The same records for both services, as many as are wanted. */
@NullMarked
package sandpiper.bench.data;

import org.jspecify.annotations.NullMarked;
