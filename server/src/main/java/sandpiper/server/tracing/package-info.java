/** Spans of requests for OpenTelemetry, where an operator wants them. */
@NullMarked
package sandpiper.server.tracing;

import org.jspecify.annotations.NullMarked;
