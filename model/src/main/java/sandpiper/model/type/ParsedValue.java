package sandpiper.model.type;

/** What reading a value came to: the stored form, or why it cannot be taken. */
public sealed interface ParsedValue {
    /** The value in stored form. */
    record Taken(Object value) implements ParsedValue {}

    /**
     * Why a value cannot be taken.
     *
     * @param message what must be and what came, to follow the field's label: "must be a date, as
     *     in 2026-05-01, but was …"
     */
    record Refused(ValueCode code, String message) implements ParsedValue {}

    /** A taken value. */
    static ParsedValue taken(Object value) {
        return new Taken(value);
    }

    /** A refusal because the value is not of the type at all. */
    static ParsedValue wrongType(String message) {
        return new Refused(ValueCode.WRONG_TYPE, message);
    }
}
