package sandpiper.logic.function;

import static sandpiper.logic.function.FunctionParameter.taking;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.Period;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Quoted;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Moment;
import sandpiper.logic.value.Months;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.TemporalText;
import sandpiper.logic.value.TimeOfDay;
import sandpiper.logic.value.ValueText;

/** DMN 1.5 §10.3.4.1. */
final class ConversionFunctions {
    private static final String CHAPTER = "Conversion";

    static final List<Builtin> ALL =
            List.of(
                    Builtin.of(
                                    "date",
                                    CHAPTER,
                                    "A date from text, from its numbers, or of a date and time.")
                            .form(
                                    Simple.DATE,
                                    ConversionFunctions::date,
                                    taking("from", ParameterKind.TEXT_OR_TEMPORAL))
                            .form(
                                    Simple.DATE,
                                    ConversionFunctions::dateOfNumbers,
                                    taking("year", ParameterKind.NUMBER),
                                    taking("month", ParameterKind.NUMBER),
                                    taking("day", ParameterKind.NUMBER))
                            .example("date(\"2026-05-01\")", "2026-05-01")
                            .example("date(2026, 5, 1)", "2026-05-01")
                            .example("date(\"2026-02-30\")", "null"),
                    Builtin.of(
                                    "time",
                                    CHAPTER,
                                    "A time from text, from its numbers, or of a date and time.")
                            .form(
                                    Simple.TIME,
                                    ConversionFunctions::time,
                                    taking("from", ParameterKind.TEXT_OR_TEMPORAL))
                            .form(
                                    Simple.TIME,
                                    ConversionFunctions::timeOfNumbers,
                                    taking("hour", ParameterKind.NUMBER),
                                    taking("minute", ParameterKind.NUMBER),
                                    taking("second", ParameterKind.NUMBER),
                                    taking("offset", ParameterKind.DURATION).orAbsent().orNull())
                            .example("time(\"14:30:00\")", "14:30:00")
                            .example("time(14, 30, 0, duration(\"PT2H\"))", "14:30:00+02:00"),
                    Builtin.of(
                                    "date and time",
                                    CHAPTER,
                                    "A date and time from text, from a date and a time, or from its"
                                            + " numbers.")
                            .form(
                                    Simple.DATE_TIME,
                                    ConversionFunctions::moment,
                                    taking("from", ParameterKind.TEXT_OR_TEMPORAL))
                            .form(
                                    Simple.DATE_TIME,
                                    ConversionFunctions::momentOfParts,
                                    taking("date", ParameterKind.DAY),
                                    taking("time", ParameterKind.TIME))
                            .form(
                                    Simple.DATE_TIME,
                                    ConversionFunctions::momentInZone,
                                    taking("date", ParameterKind.MOMENT),
                                    taking("timezone", ParameterKind.TEXT))
                            .form(
                                    Simple.DATE_TIME,
                                    ConversionFunctions::momentOfNumbers,
                                    taking("year", ParameterKind.NUMBER),
                                    taking("month", ParameterKind.NUMBER),
                                    taking("day", ParameterKind.NUMBER),
                                    taking("hour", ParameterKind.NUMBER),
                                    taking("minute", ParameterKind.NUMBER),
                                    taking("second", ParameterKind.NUMBER),
                                    taking("offset", ParameterKind.DURATION).orAbsent().orNull())
                            .form(
                                    Simple.DATE_TIME,
                                    ConversionFunctions::momentOfNumbers,
                                    taking("year", ParameterKind.NUMBER),
                                    taking("month", ParameterKind.NUMBER),
                                    taking("day", ParameterKind.NUMBER),
                                    taking("hour", ParameterKind.NUMBER),
                                    taking("minute", ParameterKind.NUMBER),
                                    taking("second", ParameterKind.NUMBER),
                                    taking("timezone", ParameterKind.TEXT))
                            .example(
                                    "date and time(\"2026-05-01T14:30:00Z\")",
                                    "2026-05-01T14:30:00Z")
                            .example(
                                    "date and time(date(\"2026-05-01\"), time(\"14:30:00\"))",
                                    "2026-05-01T14:30:00"),
                    Builtin.of(
                                    "duration",
                                    CHAPTER,
                                    "A duration from text: days and shorter, or years and months.")
                            .form(
                                    ConversionFunctions::durationType,
                                    ConversionFunctions::duration,
                                    taking("from", ParameterKind.TEXT))
                            .example("duration(\"P1DT6H\")", "P1DT6H")
                            .example("duration(\"P14M\")", "P1Y2M"),
                    Builtin.of(
                                    "years and months duration",
                                    CHAPTER,
                                    "Whole months from one day to another, as a duration.")
                            .form(
                                    Simple.MONTHS,
                                    ConversionFunctions::monthsBetween,
                                    taking("from", ParameterKind.DAY),
                                    taking("to", ParameterKind.DAY))
                            .example(
                                    "years and months duration(@\"2025-03-15\", @\"2026-05-01\")",
                                    "P1Y1M"),
                    Builtin.of(
                                    "number",
                                    CHAPTER,
                                    "A number from text, with the separators it was written with.")
                            .form(
                                    Simple.NUMBER,
                                    ConversionFunctions::number,
                                    taking("from", ParameterKind.TEXT),
                                    taking("grouping separator", ParameterKind.TEXT)
                                            .orAbsent()
                                            .orNull(),
                                    taking("decimal separator", ParameterKind.TEXT)
                                            .orAbsent()
                                            .orNull())
                            .example("number(\"1.250,50\", \".\", \",\")", "1250.5")
                            .example("number(\"twelve\", null, null)", "null"),
                    Builtin.of("string", CHAPTER, "Any value as text.")
                            .form(
                                    Simple.TEXT,
                                    arguments ->
                                            arguments.has(0)
                                                    ? ValueText.of(arguments.any(0))
                                                    : Nothing.NULL,
                                    taking("from", ParameterKind.ANY).orNull())
                            .example("string(12.50)", "\"12.5\"")
                            .example("string(@\"2026-05-01\")", "\"2026-05-01\""));

    private ConversionFunctions() {}

    private static Object date(CallArguments arguments) {
        return switch (arguments.any(0)) {
            case LocalDate date -> date;
            case Moment moment -> moment.local().toLocalDate();
            case String text -> orFail(TemporalText.date(text), arguments, text, "a date");
            default -> arguments.fail("A time has no date.");
        };
    }

    private static Object orFail(
            @Nullable Object value, CallArguments arguments, String text, String what) {
        return value == null
                ? arguments.fail("%s is not %s.".formatted(Quoted.of(text), what))
                : value;
    }

    private static Object dateOfNumbers(CallArguments arguments) {
        try {
            return LocalDate.of(whole(arguments, 0), whole(arguments, 1), whole(arguments, 2));
        } catch (DateTimeException e) {
            return arguments.fail("There is no such date.");
        }
    }

    /**
     * @throws DateTimeException when the number is not whole or far too large
     */
    private static int whole(CallArguments arguments, int index) {
        return arguments
                .number(index)
                .asInt()
                .orElseThrow(() -> new DateTimeException("Not a whole number"));
    }

    private static Object time(CallArguments arguments) {
        return switch (arguments.any(0)) {
            case TimeOfDay time -> time;
            case Moment moment -> new TimeOfDay(moment.local().toLocalTime(), moment.zone());
            case LocalDate _ -> new TimeOfDay(LocalTime.MIDNIGHT, ZoneOffset.UTC);
            case String text -> orFail(TemporalText.time(text), arguments, text, "a time");
            default -> Nothing.NULL;
        };
    }

    private static Object timeOfNumbers(CallArguments arguments) {
        try {
            return new TimeOfDay(localTime(arguments, 0), offset(arguments.any(3)));
        } catch (DateTimeException e) {
            return arguments.fail("There is no such time.");
        }
    }

    private static LocalTime localTime(CallArguments arguments, int at) {
        var second = arguments.number(at + 2).big();
        var whole = second.toBigInteger();
        if (whole.bitLength() > 6 || second.signum() < 0) {
            throw new DateTimeException("No such second");
        }
        return LocalTime.of(
                whole(arguments, at),
                whole(arguments, at + 1),
                whole.intValue(),
                second.subtract(new BigDecimal(whole)).movePointRight(9).intValue());
    }

    private static @Nullable ZoneOffset offset(Object duration) {
        return duration instanceof Duration offset
                ? ZoneOffset.ofTotalSeconds(
                        Math.toIntExact(
                                Math.clamp(
                                        offset.toSeconds(), Integer.MIN_VALUE, Integer.MAX_VALUE)))
                : null;
    }

    private static Object moment(CallArguments arguments) {
        return switch (arguments.any(0)) {
            case Moment moment -> moment;
            case LocalDate date -> Moment.of(date);
            case String text ->
                    orFail(TemporalText.moment(text), arguments, text, "a date and time");
            default -> arguments.fail("A time has no date.");
        };
    }

    private static Object momentOfParts(CallArguments arguments) {
        var date =
                arguments.any(0) instanceof Moment moment
                        ? moment.local().toLocalDate()
                        : (LocalDate) arguments.any(0);
        var time = (TimeOfDay) arguments.any(1);
        return new Moment(LocalDateTime.of(date, time.time()), time.zone());
    }

    private static Object momentInZone(CallArguments arguments) {
        try {
            var zone = zone(arguments.text(1));
            var moment = (Moment) arguments.any(0);
            return Moment.of(moment.instant(zone), zone);
        } catch (DateTimeException e) {
            return arguments.fail("There is no time zone %s.".formatted(arguments.text(1)));
        }
    }

    private static ZoneId zone(String name) {
        return name.startsWith("+") || name.startsWith("-") || name.equals("Z")
                ? ZoneOffset.of(name)
                : TemporalText.zoneNamed(name);
    }

    private static Object momentOfNumbers(CallArguments arguments) {
        try {
            var date = LocalDate.of(whole(arguments, 0), whole(arguments, 1), whole(arguments, 2));
            var zone =
                    arguments.any(6) instanceof String name ? zone(name) : offset(arguments.any(6));
            return new Moment(LocalDateTime.of(date, localTime(arguments, 3)), zone);
        } catch (DateTimeException e) {
            return arguments.fail("There is no such date and time.");
        }
    }

    /** Which of both kinds can be known only from the text; days are the usual one. */
    private static LogicType durationType(List<LogicType> arguments) {
        return Simple.ANY;
    }

    private static Object duration(CallArguments arguments) {
        var text = arguments.text(0);
        return orFail(
                TemporalText.duration(text), arguments, text, "a duration, as in P1DT6H or P1Y2M");
    }

    private static Object monthsBetween(CallArguments arguments) {
        var between = Period.between(day(arguments.any(0)), day(arguments.any(1)));
        return new Months(between.toTotalMonths());
    }

    static LocalDate day(Object value) {
        return value instanceof Moment moment ? moment.local().toLocalDate() : (LocalDate) value;
    }

    private static Object number(CallArguments arguments) {
        var text = arguments.text(0);
        var grouping = arguments.has(1) ? arguments.text(1) : "";
        var point = arguments.has(2) ? arguments.text(2) : ".";
        boolean wrong =
                (!grouping.isEmpty() && !List.of(" ", ",", ".").contains(grouping))
                        || !List.of(",", ".").contains(point)
                        || grouping.equals(point);
        if (wrong) {
            return arguments.fail(
                    "number: the grouping separator is a space, comma or point, the decimal"
                            + " separator a comma or point, and both differ.");
        }
        var plain = grouping.isEmpty() ? text : text.replace(grouping, "");
        if (!point.equals(".") && plain.contains(".")) {
            return arguments.fail("%s is not a number.".formatted(Quoted.of(text)));
        }
        plain = plain.replace(point, ".");
        if (plain.length() > 100
                || !plain.matches("-?(\\d+(\\.\\d+)?|\\.\\d+)([eE][+-]?\\d{1,4})?")) {
            return arguments.fail("%s is not a number.".formatted(Quoted.of(text)));
        }
        var value = Decimal.tryOf(new BigDecimal(plain));
        return value == null ? arguments.fail("The number is too large.") : value;
    }
}
