/** Answers to what went wrong, as RFC 9457 problems. */
@NullMarked
package sandpiper.server.problem;

import org.jspecify.annotations.NullMarked;
