/**
 * Who may do what, for the console and the command line: {@link
 * sandpiper.server.manage.access.UserController} and its neighbours.
 */
@NullMarked
package sandpiper.server.manage.access;

import org.jspecify.annotations.NullMarked;
