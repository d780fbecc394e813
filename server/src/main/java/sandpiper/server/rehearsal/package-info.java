/**
 * The copy of a rehearsal served beside the live service, in the same web server, and what was
 * asked of the live service played on it: {@link sandpiper.server.rehearsal.RehearsalHost}.
 */
@NullMarked
package sandpiper.server.rehearsal;

import org.jspecify.annotations.NullMarked;
