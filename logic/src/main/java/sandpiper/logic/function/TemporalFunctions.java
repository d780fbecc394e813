package sandpiper.logic.function;

import static sandpiper.logic.function.FunctionParameter.taking;

import java.time.LocalDate;
import java.time.format.TextStyle;
import java.time.temporal.IsoFields;
import java.util.List;
import java.util.Locale;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Moment;

/** DMN 1.5 §10.3.4.6 and §10.3.4.12. */
final class TemporalFunctions {
    private static final String CHAPTER = "Dates and times";

    static final List<Builtin> ALL =
            List.of(
                    Builtin.of("today", CHAPTER, "Today's date.")
                            .form(
                                    Simple.DATE,
                                    arguments ->
                                            LocalDate.ofInstant(
                                                    arguments.run().now(), arguments.run().zone()))
                            .example("today() = date(now())", "true"),
                    Builtin.of("now", CHAPTER, "This moment.")
                            .form(
                                    Simple.DATE_TIME,
                                    arguments ->
                                            Moment.of(
                                                    arguments.run().now(), arguments.run().zone()))
                            .example("now() > @\"2026-01-01T00:00:00Z\"", "true"),
                    Builtin.of("day of week", CHAPTER, "The day's name in English.")
                            .form(
                                    Simple.TEXT,
                                    arguments ->
                                            day(arguments)
                                                    .getDayOfWeek()
                                                    .getDisplayName(TextStyle.FULL, Locale.ENGLISH),
                                    taking("date", ParameterKind.DAY))
                            .example("day of week(@\"2026-05-01\")", "\"Friday\""),
                    Builtin.of("day of year", CHAPTER, "The day's number in its year, from 1.")
                            .form(
                                    Simple.NUMBER,
                                    arguments -> Decimal.of(day(arguments).getDayOfYear()),
                                    taking("date", ParameterKind.DAY))
                            .example("day of year(@\"2026-02-01\")", "32"),
                    Builtin.of("week of year", CHAPTER, "The week's number by ISO 8601.")
                            .form(
                                    Simple.NUMBER,
                                    arguments ->
                                            Decimal.of(
                                                    day(arguments)
                                                            .get(
                                                                    IsoFields
                                                                            .WEEK_OF_WEEK_BASED_YEAR)),
                                    taking("date", ParameterKind.DAY))
                            .example("week of year(@\"2026-01-01\")", "1"),
                    Builtin.of("month of year", CHAPTER, "The month's name in English.")
                            .form(
                                    Simple.TEXT,
                                    arguments ->
                                            day(arguments)
                                                    .getMonth()
                                                    .getDisplayName(TextStyle.FULL, Locale.ENGLISH),
                                    taking("date", ParameterKind.DAY))
                            .example("month of year(@\"2026-05-01\")", "\"May\""));

    private TemporalFunctions() {}

    private static LocalDate day(CallArguments arguments) {
        return ConversionFunctions.day(arguments.any(0));
    }
}
