package sandpiper.server.outside;

import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Keeps from calling what does not answer: after some failures one after the other it opens, and
 * nothing is called for a while; then one call is tried, and when that goes well it closes. Safe to
 * be used by many threads.
 */
final class Circuit {
    private static final int MOST_FAILURES = 5;
    private static final Duration SHORTEST = Duration.ofSeconds(5);
    private static final Duration LONGEST = Duration.ofMinutes(2);

    private int failures;
    private Duration pause = SHORTEST;
    private @Nullable Instant openUntil;
    private boolean trying;

    /** What a caller may do. */
    enum Leave {
        CALL,
        /** The one call that finds out whether it goes again. */
        TRY,
        WAIT
    }

    /** Whether a call may be made; whoever may tells how it went. */
    synchronized Leave ask(Instant now) {
        var until = openUntil;
        if (until == null) {
            return Leave.CALL;
        }
        if (trying || until.isAfter(now)) {
            return Leave.WAIT;
        }
        trying = true;
        return Leave.TRY;
    }

    synchronized void succeeded() {
        failures = 0;
        pause = SHORTEST;
        openUntil = null;
        trying = false;
    }

    synchronized void failed(Instant now) {
        failures++;
        if (openUntil != null) {
            pause = pause.multipliedBy(2).compareTo(LONGEST) > 0 ? LONGEST : pause.multipliedBy(2);
            openUntil = now.plus(pause);
        } else if (failures >= MOST_FAILURES) {
            openUntil = now.plus(pause);
        }
        trying = false;
    }

    /** Whether nothing is called now. */
    synchronized boolean isOpen() {
        return openUntil != null;
    }
}
