/** Who may come in: clients by HTTP Basic, people by session or HTTP Basic. */
@NullMarked
package sandpiper.server.security;

import org.jspecify.annotations.NullMarked;
