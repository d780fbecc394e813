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
 * @param later the offset when the clock shows this time twice, as in the night in autumn, and the
 *     second is meant; otherwise {@code null}
 */
public record Moment(LocalDateTime local, @Nullable ZoneId zone, @Nullable ZoneOffset later) {
    /** The first of two when the clock shows this time twice. */
    public Moment(LocalDateTime local, @Nullable ZoneId zone) {
        this(local, zone, null);
    }

    /** A moment of the time line, seen in a zone. */
    public static Moment of(Instant instant, ZoneId zone) {
        var offset = zone.getRules().getOffset(instant);
        var local = LocalDateTime.ofInstant(instant, zone);
        boolean isFirst = zone.getRules().getOffset(local).equals(offset);
        return new Moment(local, zone, isFirst ? null : offset);
    }

    /** The first moment of a day in UTC, which is what a date counts as among date and times. */
    public static Moment of(LocalDate date) {
        return new Moment(date.atStartOfDay(), ZoneOffset.UTC);
    }

    /** The moment of the time line; without a zone of its own it is meant in the given one. */
    public Instant instant(ZoneId otherwise) {
        return later != null
                ? local.toInstant(later)
                : local.atZone(zone == null ? otherwise : zone).toInstant();
    }

    /** The offset from UTC at this moment, or {@code null} when there is no zone. */
    public @Nullable ZoneOffset offset() {
        return later != null ? later : zone == null ? null : zone.getRules().getOffset(local);
    }
}
