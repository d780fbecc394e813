package sandpiper.logic.value;

import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.jspecify.annotations.Nullable;

/**
 * A time of day, DMN 1.5 §10.3.2.3.5.
 *
 * @param zone an offset or a named zone, or {@code null} when none was given
 */
public record TimeOfDay(LocalTime time, @Nullable ZoneId zone) {
    /** Nanoseconds since midnight in UTC, or of the local day when there is no zone. */
    long nanosOfDay() {
        var at = offset();
        return time.toNanoOfDay() - (at == null ? 0 : at.getTotalSeconds() * 1_000_000_000L);
    }

    /** The offset; a named zone's is that of its standard time. */
    public @Nullable ZoneOffset offset() {
        return zone == null ? null : zone.getRules().getStandardOffset(Instant.EPOCH);
    }
}
