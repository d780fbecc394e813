package sandpiper.logic.outline;

/** One side of a comparison. Immutable. */
public sealed interface Side {
    /** A fixed value; {@code text} is without quotes. */
    record Value(Kind kind, String text) implements Side {}

    /** A field, or one of a record referred to: {@code vessel.length}. */
    record Field(String path) implements Side {}

    /**
     * What items of a list come to.
     *
     * @param path the list for a count, else the field of its items
     */
    record Total(Function function, String path) implements Side {}

    /**
     * A day or moment as seen from now.
     *
     * @param exact whether a moment is meant, or a day
     * @param amount how many units later, or earlier when it is negative
     */
    record Relative(boolean exact, int amount, Unit unit) implements Side {}

    /** Anything else, as it is written. */
    record Expression(String text) implements Side {}

    /** What a fixed value is. */
    enum Kind {
        TEXT,
        NUMBER,
        BOOLEAN,
        /** A date, time, moment or duration as in {@code @"2026-05-01"}. */
        TEMPORAL
    }

    /** What can be worked out of a list. */
    enum Function {
        COUNT,
        SUM,
        MIN,
        MAX,
        MEAN
    }

    /** How far away; months and years follow the calendar. */
    enum Unit {
        HOURS,
        DAYS,
        WEEKS,
        MONTHS,
        YEARS
    }
}
