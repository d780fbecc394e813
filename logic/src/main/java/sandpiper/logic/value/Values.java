package sandpiper.logic.value;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Compares values as FEEL does, DMN 1.5 §10.3.2.13. */
public final class Values {
    private Values() {}

    /**
     * Whether two values are equal: {@code TRUE} or {@code FALSE}, or {@link Nothing#NULL} when
     * they are of kinds that cannot be.
     */
    public static Object equal(Object a, Object b) {
        if (a == Nothing.NULL || b == Nothing.NULL) {
            return a == b;
        }
        return switch (a) {
            case Decimal x when b instanceof Decimal y -> x.compareTo(y) == 0;
            case String x when b instanceof String y -> x.equals(y);
            case Boolean x when b instanceof Boolean y -> x.equals(y);
            case LocalDate x when b instanceof LocalDate y -> x.equals(y);
            case Moment x when b instanceof Moment y -> compare(x, y) == 0;
            case Moment x when b instanceof LocalDate y -> compare(x, Moment.of(y)) == 0;
            case LocalDate x when b instanceof Moment y -> compare(Moment.of(x), y) == 0;
            case TimeOfDay x when b instanceof TimeOfDay y -> compare(x, y) == 0;
            case Duration x when b instanceof Duration y -> x.equals(y);
            case Months x when b instanceof Months y -> x.equals(y);
            case Amount x when b instanceof Amount y ->
                    x.currency().equals(y.currency()) && x.value().equals(y.value());
            case Amount x when b instanceof Decimal y -> x.value().equals(y);
            case Decimal x when b instanceof Amount y -> x.equals(y.value());
            case List<?> x when b instanceof List<?> y -> lists(x, y);
            case Context x when b instanceof Context y -> contexts(x, y);
            case Range x when b instanceof Range y -> ranges(x, y);
            case RecordValue x when b instanceof RecordValue y -> x.equals(y);
            case RecordValue x when b instanceof String y -> x.written().equals(y);
            case String x when b instanceof RecordValue y -> x.equals(y.written());
            case FunctionValue x when b instanceof FunctionValue y -> x == y;
            default -> Nothing.NULL;
        };
    }

    /** Whether two values are known to be equal. */
    public static boolean same(Object a, Object b) {
        return equal(a, b) == Boolean.TRUE;
    }

    /** Whether two values are the same in kind and in every part, as {@code is} asks. */
    public static boolean identical(Object a, Object b) {
        return switch (a) {
            case Moment x when b instanceof Moment y -> x.equals(y);
            case TimeOfDay x when b instanceof TimeOfDay y -> x.equals(y);
            default -> a.getClass() == b.getClass() && same(a, b);
        };
    }

    private static Object lists(List<?> x, List<?> y) {
        if (x.size() != y.size()) {
            return false;
        }
        for (int i = 0; i < x.size(); i++) {
            if (!same(x.get(i), y.get(i))) {
                return false;
            }
        }
        return true;
    }

    private static Object contexts(Context x, Context y) {
        return x.keys().equals(y.keys())
                && x.keys().stream().allMatch(key -> same(x.get(key), y.get(key)));
    }

    private static Object ranges(Range x, Range y) {
        return x.startIncluded() == y.startIncluded()
                && x.endIncluded() == y.endIncluded()
                && same(x.start(), y.start())
                && same(x.end(), y.end());
    }

    /**
     * The order of two values: below, at or above 0, or {@code null} when their kinds have none
     * between them.
     */
    public static @Nullable Integer order(Object a, Object b) {
        return switch (a) {
            case Decimal x when b instanceof Decimal y -> x.compareTo(y);
            case String x when b instanceof String y -> order(x, y);
            case LocalDate x when b instanceof LocalDate y -> x.compareTo(y);
            case Moment x when b instanceof Moment y -> compare(x, y);
            case Moment x when b instanceof LocalDate y -> compare(x, Moment.of(y));
            case LocalDate x when b instanceof Moment y -> compare(Moment.of(x), y);
            case TimeOfDay x when b instanceof TimeOfDay y -> compare(x, y);
            case Duration x when b instanceof Duration y -> x.compareTo(y);
            case Months x when b instanceof Months y -> x.compareTo(y);
            case Amount x when b instanceof Amount y ->
                    x.currency().equals(y.currency()) ? x.value().compareTo(y.value()) : null;
            case Amount x when b instanceof Decimal y -> x.value().compareTo(y);
            case Decimal x when b instanceof Amount y -> x.compareTo(y.value());
            default -> null;
        };
    }

    /** By code point, where Java's own order goes by UTF-16 unit. */
    private static int order(String x, String y) {
        int i = 0;
        while (i < x.length() && i < y.length()) {
            int a = x.codePointAt(i);
            int b = y.codePointAt(i);
            if (a != b) {
                return Integer.compare(a, b);
            }
            i += Character.charCount(a);
        }
        return Integer.compare(x.length(), y.length());
    }

    /** One without a zone is meant in that of the other. */
    static int compare(Moment x, Moment y) {
        if (x.zone() == null && y.zone() == null) {
            return x.local().compareTo(y.local());
        }
        return x.instant(zoneOf(y)).compareTo(y.instant(zoneOf(x)));
    }

    private static ZoneId zoneOf(Moment moment) {
        var zone = moment.zone();
        return zone == null ? ZoneOffset.UTC : zone;
    }

    private static int compare(TimeOfDay x, TimeOfDay y) {
        return (x.zone() == null) == (y.zone() == null)
                ? Long.compare(x.nanosOfDay(), y.nanosOfDay())
                : x.time().compareTo(y.time());
    }

    /** Whether a value lies in a range: true, false, or {@link Nothing#NULL}. */
    public static Object within(Object value, Range range) {
        boolean fromAnywhere = range.start() == Nothing.NULL;
        boolean toAnywhere = range.end() == Nothing.NULL;
        if (value == Nothing.NULL || (fromAnywhere && toAnywhere)) {
            return Nothing.NULL;
        }
        Integer low = fromAnywhere ? Integer.valueOf(1) : order(value, range.start());
        Integer high = toAnywhere ? Integer.valueOf(-1) : order(value, range.end());
        if (low == null || high == null) {
            return Nothing.NULL;
        }
        return (low > 0 || (low == 0 && range.startIncluded()))
                && (high < 0 || (high == 0 && range.endIncluded()));
    }

    /** The exact difference of two moments, or {@code null} when only one has a zone. */
    public static @Nullable Duration between(Moment from, Moment to) {
        if ((from.zone() == null) != (to.zone() == null)) {
            return null;
        }
        Instant start = from.instant(ZoneOffset.UTC);
        return Duration.between(start, to.instant(ZoneOffset.UTC));
    }

    /** The kind of a value, for messages: "text", "a number". */
    public static String kind(Object value) {
        return switch (value) {
            case Nothing _ -> "null";
            case Decimal _ -> "a number";
            case String _ -> "text";
            case Boolean _ -> "true or false";
            case LocalDate _ -> "a date";
            case TimeOfDay _ -> "a time";
            case Moment _ -> "a date and time";
            case Duration _ -> "a duration";
            case Months _ -> "a duration of years and months";
            case Amount _ -> "an amount";
            case List<?> _ -> "a list";
            case Context _ -> "a context";
            case Range _ -> "a range";
            case FunctionValue _ -> "a function";
            case RecordValue _ -> "a record";
            default -> "a value";
        };
    }
}
