/** What is measured, a class for each kind of work. */
@NullMarked
package sandpiper.bench.line;

import org.jspecify.annotations.NullMarked;
