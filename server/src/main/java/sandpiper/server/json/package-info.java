/** JSON to and from plain values, bounded. */
@NullMarked
package sandpiper.server.json;

import org.jspecify.annotations.NullMarked;
