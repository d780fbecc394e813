package sandpiper.engine.call;

import java.time.Instant;
import java.time.LocalDate;

/**
 * The calls of one kind on one day (UTC).
 *
 * @param errors calls that were answered with an error
 * @param micros the time they took together, in microseconds
 * @param slowest the time of the slowest, in microseconds
 */
public record Use(
        LocalDate day,
        Called called,
        long calls,
        long errors,
        long micros,
        long slowest,
        Instant last) {}
