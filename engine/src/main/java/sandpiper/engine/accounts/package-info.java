/**
 * Who there is and what each may do: {@link sandpiper.engine.accounts.Accounts} has the people, the
 * clients and the roles of an instance, their rules, and the log of every change of them.
 */
@NullMarked
package sandpiper.engine.accounts;

import org.jspecify.annotations.NullMarked;
