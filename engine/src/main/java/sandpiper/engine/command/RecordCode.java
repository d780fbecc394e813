package sandpiper.engine.command;

import sandpiper.logic.ProblemCode;

/** What can be wrong with what was asked of a record. */
public enum RecordCode implements ProblemCode {
    UNKNOWN_FIELD("SP4101"),
    NOT_WRITABLE("SP4102"),
    REQUIRED("SP4103"),
    NOT_UNIQUE("SP4104"),
    DUPLICATE_KEY("SP4105"),
    UNKNOWN_RECORD("SP4106"),
    RETIRED_RECORD("SP4107"),
    NOT_A_LIST("SP4108"),
    UNKNOWN_LINE("SP4109"),
    NO_SUCH_RECORD("SP4110"),
    STALE("SP4111"),
    IN_USE("SP4112"),
    NOT_REMOVABLE("SP4113"),
    KEY_MISSING("SP4114"),
    KEY_DIFFERS("SP4115"),
    TOO_MANY_ITEMS("SP4116"),
    REPEATED_DIFFERENTLY("SP4117"),
    BAD_KEY("SP4118"),
    CHECK_FAILED("SP4119"),
    REJECTED("SP4120"),
    NOT_OFFERED("SP4121"),
    WRONG_STATE("SP4122"),
    NO_SUCH_TRANSITION("SP4123"),
    RULE_LOOP("SP4124"),
    TOO_MUCH("SP4125"),
    CANNOT_BE_STORED("SP4126"),
    READ_ONLY_NOW("SP4127"),
    NOT_GRANTED("SP4128"),
    VERSION_NEEDED("SP4129"),
    NOT_YOURS("SP4130"),
    EVENT_LOOP("SP4131"),
    RESULT_TOO_LARGE("SP4132"),
    OUTSIDE_FAILED("SP4133"),
    UNKNOWN_OUTSIDE("SP4134");

    private final String id;

    RecordCode(String id) {
        this.id = id;
    }

    @Override
    public String id() {
        return id;
    }
}
