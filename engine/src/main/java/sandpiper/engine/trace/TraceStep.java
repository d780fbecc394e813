package sandpiper.engine.trace;

/**
 * One thing that was done or looked at.
 *
 * @param depth how deep it stands in the tree, from 0
 * @param kind what it is
 * @param title what it was about: a rule, a field, a check
 * @param detail its condition or message, with values; may be empty
 * @param result what it came to; may be empty
 * @param micros since the beginning of the request
 */
public record TraceStep(
        int depth, Kind kind, String title, String detail, String result, long micros) {
    /** What a step is. */
    public enum Kind {
        REQUEST,
        INPUT,
        FORMULA,
        RULE,
        SET,
        CREATE,
        RETIRE,
        TRANSITION,
        CALL,
        ASK,
        EVENT,
        LOCAL,
        CONDITION,
        NOTE,
        WARNING,
        CHECK,
        REFUSED,
        STORED
    }
}
