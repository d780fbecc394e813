/** Commands on who may do what: {@link sandpiper.cli.access.UsersCommand} and its neighbours. */
@NullMarked
package sandpiper.cli.access;

import org.jspecify.annotations.NullMarked;
