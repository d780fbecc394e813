/** The services that are measured, each in a process of its own. */
@NullMarked
package sandpiper.bench.subject;

import org.jspecify.annotations.NullMarked;
