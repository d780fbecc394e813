package sandpiper.model;

import sandpiper.logic.ProblemCode;

/** What can be wrong with definition files. */
public enum DefinitionCode implements ProblemCode {
    NOT_YAML("SP3001"),
    UNKNOWN_KEY("SP3002"),
    WRONG_VALUE("SP3003"),
    MISSING_KEY("SP3004"),
    DUPLICATE_KEY("SP3005"),
    BAD_NAME("SP3006"),
    RESERVED_NAME("SP3007"),
    DUPLICATE_NAME("SP3008"),
    UNKNOWN_OBJECT("SP3009"),
    UNKNOWN_FIELD("SP3010"),
    UNKNOWN_CHOICES("SP3011"),
    UNKNOWN_PACKAGE("SP3012"),
    PACKAGE_CYCLE("SP3013"),
    NOT_FOR_THIS_TYPE("SP3014"),
    BAD_PATTERN("SP3015"),
    BAD_DEFAULT("SP3016"),
    BAD_KEY("SP3017"),
    BAD_NUMBERING("SP3018"),
    BAD_FIELD_LIST("SP3019"),
    NOT_VISIBLE("SP3020"),
    MISPLACED_FILE("SP3021"),
    BAD_PATH("SP3022"),
    NO_KEY("SP3023"),
    NOT_WRITABLE("SP3024"),
    REQUIRED_NOT_GIVEN("SP3025"),
    UNREAD_FILE("SP3026"),
    TOO_LARGE("SP3027"),
    FORMULA_CYCLE("SP3028"),
    BAD_SCHEDULE("SP3029"),
    UNKNOWN_EVENT("SP3030"),
    UNKNOWN_FUNCTION("SP3031"),
    BAD_EXAMPLE("SP3032"),
    NAME_COLLISION("SP3033"),
    ROUTE_CIRCLE("SP3034"),
    UNKNOWN_ROUTE("SP3035"),
    NOT_ON_ROUTE("SP3036"),
    BAD_CONTRACT("SP3037"),
    NOT_IN_CONTRACT("SP3038"),
    UNKNOWN_CONNECTION("SP3039");

    private final String id;

    DefinitionCode(String id) {
        this.id = id;
    }

    @Override
    public String id() {
        return id;
    }
}
