/** How an instance is set up. */
@NullMarked
package sandpiper.server.config;

import org.jspecify.annotations.NullMarked;
