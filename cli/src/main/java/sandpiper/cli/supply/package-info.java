/** What the distribution is made of, and what is known against it. */
@NullMarked
package sandpiper.cli.supply;

import org.jspecify.annotations.NullMarked;
