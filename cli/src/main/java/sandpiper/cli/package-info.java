/**
 * The command line. Start at {@link sandpiper.cli.Main}. A command reads its arguments, asks the
 * manage API and prints; only {@code check} works by itself, so that it needs no service, and
 * {@code serve} and {@code demo} start one.
 *
 * <p>Exit codes: 0 done, 1 found problems or failed, 2 wrong usage.
 */
@NullMarked
package sandpiper.cli;

import org.jspecify.annotations.NullMarked;
