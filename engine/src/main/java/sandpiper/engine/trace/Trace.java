package sandpiper.engine.trace;

import java.time.Instant;
import java.util.List;
import java.util.UUID;

/**
 * The account of one request.
 *
 * @param via the way in: {@code console}, {@code berth-desk v1}
 * @param what was asked, in words: {@code change Stay ST-2026-000042}
 * @param outcome {@code done}, {@code refused} or {@code tried}
 * @param steps in the order in which they happened
 */
public record Trace(
        UUID id,
        Instant at,
        String by,
        String via,
        String what,
        String outcome,
        List<TraceStep> steps) {
    public Trace {
        steps = List.copyOf(steps);
    }
}
