/**
 * Services outside, as seen from units of work. The writer never waits for one: work that needs an
 * answer is left off, the answer is fetched by whoever waits for the work ({@link
 * sandpiper.engine.outside.Outside}), and the work is begun anew with it.
 */
@NullMarked
package sandpiper.engine.outside;

import org.jspecify.annotations.NullMarked;
