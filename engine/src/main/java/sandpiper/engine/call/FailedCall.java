package sandpiper.engine.call;

import java.time.Instant;

/**
 * A call that failed.
 *
 * @param message what was wrong, as the caller was told
 * @param trace id of the account of it; empty when there is none
 */
public record FailedCall(Instant at, Called called, int status, String message, String trace) {}
