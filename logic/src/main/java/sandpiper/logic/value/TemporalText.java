package sandpiper.logic.value;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Reads and writes dates, times and durations as text, DMN 1.5 §10.3.2.3.4 to 10.3.2.3.8 (XML
 * Schema's forms, with {@code @Europe/Berlin} for a named zone).
 *
 * <p>All patterns here run in linear time: each alternative is decided by its first character.
 */
public final class TemporalText {
    private static final Pattern DATE =
            Pattern.compile("(-?(?:[1-9]\\d{4,8}|\\d{4}))-(\\d{2})-(\\d{2})");
    private static final Pattern TIME =
            Pattern.compile(
                    "(\\d{2}):(\\d{2}):(\\d{2})(?:\\.(\\d{1,9})\\d{0,20})?"
                            + "(Z|z|[+-]\\d{2}:\\d{2}(?::\\d{2})?|@[A-Za-z0-9_+/-]{1,60})?");
    private static final Pattern MONTHS =
            Pattern.compile("(-)?P(?:(\\d{1,18})Y)?(?:(\\d{1,18})M)?");
    private static final Pattern DURATION =
            Pattern.compile(
                    "(-)?P(?:(\\d{1,15})D)?(?:T(?:(\\d{1,15})H)?(?:(\\d{1,15})M)?"
                            + "(?:(\\d{1,15})(?:\\.(\\d{1,9})\\d{0,20})?S)?)?");

    /** The farthest a zone may be from UTC. */
    private static final int FARTHEST_OFFSET_HOURS = 14;

    private TemporalText() {}

    /** A date, or {@code null} when the text is none. */
    public static @Nullable LocalDate date(String text) {
        var matcher = DATE.matcher(text);
        return matcher.matches() ? date(matcher) : null;
    }

    private static @Nullable LocalDate date(Matcher matcher) {
        try {
            return LocalDate.of(
                    Integer.parseInt(matcher.group(1)),
                    Integer.parseInt(matcher.group(2)),
                    Integer.parseInt(matcher.group(3)));
        } catch (DateTimeException _) {
            return null;
        }
    }

    /** A time, or {@code null} when the text is none. */
    public static @Nullable TimeOfDay time(String text) {
        var matcher = TIME.matcher(text);
        if (!matcher.matches()) {
            return null;
        }
        try {
            var time =
                    LocalTime.of(
                            Integer.parseInt(matcher.group(1)),
                            Integer.parseInt(matcher.group(2)),
                            Integer.parseInt(matcher.group(3)),
                            nanos(matcher.group(4)));
            var zone = matcher.group(5);
            return new TimeOfDay(time, zone == null ? null : zone(zone));
        } catch (DateTimeException _) {
            return null;
        }
    }

    private static int nanos(@Nullable String fraction) {
        return fraction == null ? 0 : Integer.parseInt((fraction + "00000000").substring(0, 9));
    }

    /**
     * @throws DateTimeException when there is no such zone
     */
    private static ZoneId zone(String written) {
        if (written.startsWith("@")) {
            return zoneNamed(written.substring(1));
        }
        var offset = written.equalsIgnoreCase("Z") ? ZoneOffset.UTC : ZoneOffset.of(written);
        if (Math.abs(offset.getTotalSeconds()) > FARTHEST_OFFSET_HOURS * 3600) {
            throw new DateTimeException("No zone is that far from UTC");
        }
        return offset;
    }

    /**
     * A zone by its name in the time zone database.
     *
     * @throws DateTimeException when there is no such zone
     */
    public static ZoneId zoneNamed(String name) {
        if (!ZoneId.getAvailableZoneIds().contains(name)) {
            throw new DateTimeException("There is no time zone " + name);
        }
        return ZoneId.of(name);
    }

    /** A date and time, or {@code null} when the text is none. A date alone counts as midnight. */
    public static @Nullable Moment moment(String text) {
        int t = text.indexOf('T');
        var date = date(t < 0 ? text : text.substring(0, t));
        if (date == null) {
            return null;
        }
        if (t < 0) {
            return new Moment(date.atStartOfDay(), null);
        }
        var time = time(text.substring(t + 1));
        return time == null ? null : new Moment(LocalDateTime.of(date, time.time()), time.zone());
    }

    /**
     * A {@link Duration} or {@link Months}, or {@code null} when the text is neither. Years and
     * days do not mix.
     */
    public static @Nullable Object duration(String text) {
        try {
            var months = MONTHS.matcher(text);
            if (months.matches() && (months.group(2) != null || months.group(3) != null)) {
                long count =
                        Math.addExact(
                                Math.multiplyExact(whole(months.group(2)), 12L),
                                whole(months.group(3)));
                return new Months(months.group(1) == null ? count : -count);
            }
            var matcher = DURATION.matcher(text);
            if (!matcher.matches() || text.endsWith("T") || text.endsWith("P")) {
                return null;
            }
            var duration =
                    Duration.ofDays(whole(matcher.group(2)))
                            .plusHours(whole(matcher.group(3)))
                            .plusMinutes(whole(matcher.group(4)))
                            .plusSeconds(whole(matcher.group(5)))
                            .plusNanos(nanos(matcher.group(6)));
            return matcher.group(1) == null ? duration : duration.negated();
        } catch (ArithmeticException _) {
            return null;
        }
    }

    private static long whole(@Nullable String digits) {
        return digits == null ? 0 : Long.parseLong(digits);
    }

    /** What {@code @"..."} means: whichever of the kinds the text has the form of, or null. */
    public static @Nullable Object any(String text) {
        if (text.startsWith("P") || text.startsWith("-P")) {
            return duration(text);
        }
        if (text.indexOf('T') > 0) {
            return moment(text);
        }
        return text.length() > 2 && text.charAt(2) == ':' ? time(text) : date(text);
    }

    static String write(LocalDate date) {
        return date.getYear() > 9999 ? date.toString().substring(1) : date.toString();
    }

    static String write(TimeOfDay time) {
        return write(time.time()) + zone(time.zone());
    }

    private static String write(LocalTime time) {
        var text = "%02d:%02d:%02d".formatted(time.getHour(), time.getMinute(), time.getSecond());
        return time.getNano() == 0
                ? text
                : text
                        + BigDecimal.valueOf(time.getNano(), 9)
                                .stripTrailingZeros()
                                .toPlainString()
                                .substring(1);
    }

    static String write(Moment moment) {
        return write(moment.local().toLocalDate())
                + 'T'
                + write(moment.local().toLocalTime())
                + zone(moment.zone());
    }

    private static String zone(@Nullable ZoneId zone) {
        if (zone == null) {
            return "";
        }
        return zone instanceof ZoneOffset ? zone.getId() : "@" + zone.getId();
    }

    /** {@code P2DT3H}: days are the largest unit, zero is {@code PT0S}. */
    public static String write(Duration duration) {
        if (duration.isZero()) {
            return "PT0S";
        }
        var size = duration.abs();
        var text = new StringBuilder(duration.isNegative() ? "-P" : "P");
        if (size.toDays() > 0) {
            text.append(size.toDays()).append('D');
        }
        if (size.toHoursPart() > 0
                || size.toMinutesPart() > 0
                || size.toSecondsPart() > 0
                || size.toNanosPart() > 0) {
            text.append('T');
            if (size.toHoursPart() > 0) {
                text.append(size.toHoursPart()).append('H');
            }
            if (size.toMinutesPart() > 0) {
                text.append(size.toMinutesPart()).append('M');
            }
            if (size.toSecondsPart() > 0 || size.toNanosPart() > 0) {
                text.append(
                                BigDecimal.valueOf(size.toSecondsPart())
                                        .add(BigDecimal.valueOf(size.toNanosPart(), 9))
                                        .stripTrailingZeros()
                                        .toPlainString())
                        .append('S');
            }
        }
        return text.toString();
    }
}
