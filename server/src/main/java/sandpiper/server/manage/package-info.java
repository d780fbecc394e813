/** The manage API: everything that console and command line do. */
@NullMarked
package sandpiper.server.manage;

import org.jspecify.annotations.NullMarked;
