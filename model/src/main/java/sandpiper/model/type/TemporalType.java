package sandpiper.model.type;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.LinkedHashMap;
import java.util.Map;
import sandpiper.logic.type.LogicType;

/**
 * A date, time, date and time or duration, written as in ISO 8601. Stored as days since 1970 for a
 * date, and as microseconds for the others: since midnight, since 1970 in UTC, and of length.
 *
 * @param zone what a date and time written without an offset is meant in
 */
public record TemporalType(TypeKeyword keyword, ZoneId zone) implements FieldType {
    private static final long MICROS_PER_SECOND = 1_000_000L;
    private static final DateTimeFormatter TIME = DateTimeFormatter.ISO_LOCAL_TIME;

    @Override
    public LogicType logicType() {
        return switch (keyword) {
            case DATE -> LogicType.Simple.DATE;
            case TIME -> LogicType.Simple.TIME;
            case DURATION -> LogicType.Simple.DURATION;
            default -> LogicType.Simple.DATE_TIME;
        };
    }

    @Override
    public ParsedValue read(Object plain) {
        if (plain instanceof String text && text.length() <= 60) {
            try {
                return ParsedValue.taken(parsed(text.strip()));
            } catch (DateTimeException | ArithmeticException _) {
                return refused(plain);
            }
        }
        return refused(plain);
    }

    private ParsedValue refused(Object plain) {
        return ParsedValue.wrongType(
                switch (keyword) {
                            case DATE -> "must be a date, as in 2026-05-01";
                            case TIME -> "must be a time, as in 14:30 or 14:30:05";
                            case DURATION -> "must be a duration of days and time, as in P1DT6H";
                            default ->
                                    "must be a date and time with its offset, as in"
                                            + " 2026-05-01T14:30:00Z";
                        }
                        + ", but was "
                        + TextType.shown(plain));
    }

    private Object parsed(String text) {
        return switch (keyword) {
            case DATE -> inRange(LocalDate.parse(text)).toEpochDay();
            case TIME -> LocalTime.parse(text).truncatedTo(ChronoUnit.MICROS).toNanoOfDay() / 1000;
            case DURATION -> micros(Duration.parse(text));
            default -> micros(instant(text));
        };
    }

    private Instant instant(String text) {
        var time = text.substring(Math.max(0, text.indexOf('T')));
        boolean zoned = time.endsWith("Z") || time.contains("+") || time.contains("-");
        var local =
                zoned
                        ? OffsetDateTime.parse(text)
                        : LocalDateTime.parse(text).atZone(zone).toOffsetDateTime();
        inRange(local.toLocalDate());
        return local.toInstant();
    }

    private static LocalDate inRange(LocalDate date) {
        if (date.getYear() < 1 || date.getYear() > 9999) {
            throw new DateTimeException("The year must lie between 1 and 9999");
        }
        return date;
    }

    /** The stored form of a point in time. */
    public static long micros(Instant instant) {
        return Math.addExact(
                Math.multiplyExact(instant.getEpochSecond(), MICROS_PER_SECOND),
                instant.getNano() / 1000);
    }

    /** The stored form of a duration. */
    public static long micros(Duration duration) {
        return Math.addExact(
                Math.multiplyExact(duration.getSeconds(), MICROS_PER_SECOND),
                duration.getNano() / 1000);
    }

    /** The point in time of a stored form. */
    public static Instant instant(long micros) {
        return Instant.ofEpochSecond(
                Math.floorDiv(micros, MICROS_PER_SECOND),
                Math.floorMod(micros, MICROS_PER_SECOND) * 1000);
    }

    @Override
    public Object write(Object stored) {
        long value = (Long) stored;
        return switch (keyword) {
            case DATE -> LocalDate.ofEpochDay(value).toString();
            case TIME -> LocalTime.ofNanoOfDay(value * 1000).format(TIME);
            case DURATION ->
                    sandpiper.logic.value.TemporalText.write(Duration.of(value, ChronoUnit.MICROS));
            default -> instant(value).toString();
        };
    }

    @Override
    public Storage stores() {
        return Storage.INTEGER;
    }

    @Override
    public Map<String, Object> schema() {
        var schema = new LinkedHashMap<String, Object>();
        schema.put("type", "string");
        switch (keyword) {
            case DATE -> schema.put("format", "date");
            // Not "format: time": RFC 3339 times carry an offset, and these are local.
            case TIME -> schema.put("pattern", "^\\d{2}:\\d{2}(:\\d{2}(\\.\\d{1,6})?)?$");
            case DURATION -> schema.put("format", "duration");
            default -> schema.put("format", "date-time");
        }
        return schema;
    }

    @Override
    public Object example() {
        return switch (keyword) {
            case DATE -> "2026-05-01";
            case TIME -> "14:30:00";
            case DURATION -> "P1DT6H";
            default -> "2026-05-01T14:30:00Z";
        };
    }
}
