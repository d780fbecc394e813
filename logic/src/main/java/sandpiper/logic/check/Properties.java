package sandpiper.logic.check;

import java.util.LinkedHashMap;
import java.util.Map;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;

/** Properties of dates, times, durations and ranges, DMN 1.5 §10.3.2.15 (tables 65 and 66). */
public final class Properties {
    private static final Map<String, LogicType> DATE =
            Map.of(
                    "year", Simple.NUMBER,
                    "month", Simple.NUMBER,
                    "day", Simple.NUMBER,
                    "weekday", Simple.NUMBER);
    private static final Map<String, LogicType> TIME =
            Map.of(
                    "hour", Simple.NUMBER,
                    "minute", Simple.NUMBER,
                    "second", Simple.NUMBER,
                    "time offset", Simple.DURATION,
                    "timezone", Simple.TEXT);
    private static final Map<String, LogicType> DURATION =
            Map.of(
                    "days", Simple.NUMBER,
                    "hours", Simple.NUMBER,
                    "minutes", Simple.NUMBER,
                    "seconds", Simple.NUMBER);
    private static final Map<String, LogicType> MONTHS =
            Map.of("years", Simple.NUMBER, "months", Simple.NUMBER);

    private Properties() {}

    /** The properties a type has, by name; empty when it has none. */
    public static Map<String, LogicType> of(LogicType type) {
        return switch (type) {
            case Simple simple ->
                    switch (simple) {
                        case DATE -> DATE;
                        case TIME -> TIME;
                        case DATE_TIME -> {
                            var both = new LinkedHashMap<>(DATE);
                            both.putAll(TIME);
                            yield both;
                        }
                        case DURATION -> DURATION;
                        case MONTHS -> MONTHS;
                        default -> Map.of();
                    };
            case LogicType.RangeOf(var end) -> {
                var range = new LinkedHashMap<String, LogicType>();
                range.put("start", end);
                range.put("end", end);
                range.put("start included", Simple.BOOLEAN);
                range.put("end included", Simple.BOOLEAN);
                yield range;
            }
            case LogicType.ContextOf(var entries) -> entries == null ? Map.of() : entries;
            case LogicType.AmountOf(var currency) ->
                    currency == null
                            ? Map.of("value", Simple.NUMBER, "currency", Simple.TEXT)
                            : Map.of();
            default -> Map.of();
        };
    }

    static LogicType typeOf(LogicType type, String name, Span span, Checking checking) {
        if (type instanceof LogicType.ListOf(var item)) {
            return new LogicType.ListOf(typeOf(item, name, span, checking));
        }
        boolean unknown =
                type.isOpen()
                        || (type instanceof LogicType.ContextOf(var entries) && entries == null);
        if (unknown) {
            return Simple.ANY;
        }
        var known = of(type);
        var found = known.get(name);
        if (found != null) {
            return found;
        }
        checking.error(
                LogicCode.UNKNOWN_MEMBER,
                span,
                known.isEmpty()
                        ? "%s has no parts, so there is no %s in it."
                                .formatted(
                                        ArithmeticChecker.capital(type.described()),
                                        Quoted.of(name))
                        : "%s has no %s; it has %s."
                                .formatted(
                                        ArithmeticChecker.capital(type.described()),
                                        Quoted.of(name),
                                        String.join(
                                                ", ", known.keySet().stream().sorted().toList())),
                Nearest.to(name, known.keySet()).orElse(null));
        return Simple.ANY;
    }
}
