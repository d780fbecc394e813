/**
 * The step-by-step account of one request: {@link sandpiper.engine.trace.Tracer} takes the steps
 * down while it runs, {@link sandpiper.engine.trace.Trace} is what is kept.
 */
@NullMarked
package sandpiper.engine.trace;

import org.jspecify.annotations.NullMarked;
