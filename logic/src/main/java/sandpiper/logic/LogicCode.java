package sandpiper.logic;

/** What can be wrong with an expression. */
public enum LogicCode implements ProblemCode {
    TEXT_TOO_LONG("SP1001"),
    UNEXPECTED_CHARACTER("SP1002"),
    UNFINISHED_TEXT("SP1003"),
    UNEXPECTED_TOKEN("SP1004"),
    NESTED_TOO_DEEP("SP1005"),
    BAD_NUMBER("SP1006"),
    BAD_TEMPORAL("SP1007"),
    UNKNOWN_NAME("SP2001"),
    UNKNOWN_MEMBER("SP2002"),
    UNKNOWN_FUNCTION("SP2003"),
    WRONG_TYPE("SP2004"),
    WRONG_ARGUMENTS("SP2005"),
    UNKNOWN_CHOICE("SP2006"),
    NOT_A_CONDITION("SP2007"),
    NEVER_TRUE("SP2008"),
    NO_FIELD("SP2009"),
    MIXED_UNITS("SP2010"),
    MIXED_CURRENCIES("SP2011"),
    MAY_BE_EMPTY("SP2012"),
    UNREACHABLE("SP2013"),
    UNUSED_NAME("SP2014"),
    NOT_ASSIGNABLE("SP2015"),
    UNKNOWN_TYPE("SP2016"),
    NOT_IN_SQL("SP2017"),
    UNKNOWN_STEP("SP2018"),
    UNKNOWN_TRANSITION("SP2019"),
    DUPLICATE_NAME("SP2020"),
    TOO_COSTLY("SP2021"),
    NO_RETURN("SP2022"),
    NOT_A_FUNCTION("SP2023"),
    UNKNOWN_EVENT("SP2024"),
    HIDDEN_NAME("SP2025"),
    NEEDS_VALUE("SP2026"),
    ASKS_IN_CHANGE("SP2027");

    private final String id;

    LogicCode(String id) {
        this.id = id;
    }

    @Override
    public String id() {
        return id;
    }
}
