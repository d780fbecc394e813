package sandpiper.model.type;

import sandpiper.logic.ProblemCode;

/** What can be wrong with a value. */
public enum ValueCode implements ProblemCode {
    WRONG_TYPE("SP4001"),
    TOO_LONG("SP4002"),
    PATTERN("SP4003"),
    TOO_PRECISE("SP4004"),
    OUT_OF_RANGE("SP4005"),
    UNKNOWN_CHOICE("SP4006"),
    BAD_TEXT("SP4007"),
    UNKNOWN_LANGUAGE("SP4008"),
    BAD_FILE("SP4009");

    private final String id;

    ValueCode(String id) {
        this.id = id;
    }

    @Override
    public String id() {
        return id;
    }
}
