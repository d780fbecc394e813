/**
 * Packages as files that go from one instance to another: {@link sandpiper.cli.pack.PackCommand}.
 */
@NullMarked
package sandpiper.cli.pack;

import org.jspecify.annotations.NullMarked;
