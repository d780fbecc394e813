package sandpiper.logic.value;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.jspecify.annotations.Nullable;

/**
 * A date and time, DMN 1.5 §10.3.2.3.6.
 *
 * @param zone an offset or a named zone, or {@code null} when none was given
 */
public record Moment(LocalDateTime local, @Nullable ZoneId zone) {
    /** A moment of the time line, seen in a zone. */
    public static Moment of(Instant instant, ZoneId zone) {
        return new Moment(LocalDateTime.ofInstant(instant, zone), zone);
    }

    /** The first moment of a day in UTC, which is what a date counts as among date and times. */
    public static Moment of(LocalDate date) {
        return new Moment(date.atStartOfDay(), ZoneOffset.UTC);
    }

    /** The moment of the time line; without a zone of its own it is meant in the given one. */
    public Instant instant(ZoneId otherwise) {
        return local.atZone(zone == null ? otherwise : zone).toInstant();
    }

    /** The offset from UTC at this moment, or {@code null} when there is no zone. */
    public @Nullable ZoneOffset offset() {
        return zone == null ? null : zone.getRules().getOffset(local);
    }
}
