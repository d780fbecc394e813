package sandpiper.model.shape;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import sandpiper.model.Names;
import sandpiper.model.type.TypeKeyword;

/** The kinds of definition files, where in a package they are, and what may stand in them. */
public enum FileKind {
    PACKAGE("package", "package.yaml", Shapes.PACKAGE),
    OBJECT("object", "objects/*.yaml", Shapes.OBJECT),
    EXTENSION("extension", "extensions/*.yaml", Shapes.EXTENSION),
    CHOICES("choices", "choices/*.yaml", Shapes.CHOICES),
    SERVICE("service", "services/*.yaml", Shapes.SERVICE);

    private final String id;
    private final String where;
    private final Shape.Keys shape;

    FileKind(String id, String where, Shape.Keys shape) {
        this.id = id;
        this.where = where;
        this.shape = shape;
    }

    /** The kind's name in addresses and file names: {@code object}. */
    public String id() {
        return id;
    }

    /** Where such files are in a package's folder, with {@code *} for any name. */
    public String where() {
        return where;
    }

    /** What may stand in such a file. */
    public Shape.Keys shape() {
        return shape;
    }

    /**
     * The kind of a file by its path inside the package's folder, or nothing when no kind lives
     * there.
     */
    public static Optional<FileKind> of(String path) {
        return Arrays.stream(values())
                .filter(kind ->
                        Pattern.matches(kind.where.replace(".", "\\.").replace("*", "[^/]+"), path))
                .findFirst();
    }

    /** Holds the shapes apart, since an enum's constants are made before its own static fields. */
    private static final class Shapes {
        private static final String FIELD_NAMES =
                "a name begins with a small letter and has only letters and digits";
        private static final String ADDRESS_NAMES =
                "a name has small letters, digits and single hyphens";

        private static final Shape TEXT = new Shape.Text(null, "text");
        private static final Shape FLAG = new Shape.Flag();
        private static final Shape OBJECT_NAME =
                new Shape.Text(
                        Names.OBJECT,
                        "a name that begins with a capital letter and has only letters and digits,"
                                + " at most 60");
        private static final Shape FIELD_NAME =
                new Shape.Text(
                        Names.FIELD,
                        "a name that begins with a small letter and has only letters and digits");
        private static final Shape ADDRESS_NAME =
                new Shape.Text(Names.ADDRESS, "a name of small letters, digits and single hyphens");
        private static final Shape CODE_LIST = new Shape.ListOf(TEXT);
        private static final Shape LABELLED_CODES =
                new Shape.Named(Pattern.compile(".{1,60}"), "at most 60 characters", TEXT);
        private static final Shape FIELD_LIST =
                new Shape.Either(
                        List.of(
                                new Shape.Text(null, "fields with commas between them"),
                                new Shape.ListOf(TEXT)));

        private static final Shape.Keys FIELD =
                new Shape.Keys(
                        List.of(
                                key(
                                        "type",
                                        "What kind of value the field has.",
                                        new Shape.Word(TypeKeyword.words())),
                                key(
                                        "label",
                                        "What people read; made from the name when absent.",
                                        TEXT),
                                key(
                                        "describe",
                                        "What the field means, for forms and contracts.",
                                        TEXT),
                                key("required", "Whether a record needs a value here.", FLAG),
                                key(
                                        "unique",
                                        "Whether no two records may have the same value.",
                                        FLAG),
                                key(
                                        "readOnly",
                                        "Whether only the service itself sets the field.",
                                        FLAG),
                                key(
                                        "default",
                                        "The value of a new record that gives none; for dates also"
                                                + " today() or now().",
                                        TEXT),
                                key(
                                        "was",
                                        "The field's name in the last release, when it is renamed.",
                                        FIELD_NAME),
                                key(
                                        "length",
                                        "Most characters of a text.",
                                        new Shape.Whole(1, 100_000)),
                                key(
                                        "pattern",
                                        "A regular expression (RE2) the whole text must match.",
                                        TEXT),
                                key("multiline", "Whether a text may have several lines.", FLAG),
                                key(
                                        "localised",
                                        "Whether a text has a value in each language of the"
                                                + " package.",
                                        FLAG),
                                key(
                                        "scale",
                                        "Decimal places of a decimal, percent or amount.",
                                        new Shape.Whole(0, 9)),
                                key(
                                        "currency",
                                        "The currency of an amount (ISO 4217); \"record\" when each"
                                                + " record says its own.",
                                        new Shape.Text(
                                                Pattern.compile("[A-Z]{3}|record"),
                                                "three capital letters, or record")),
                                key(
                                        "choices",
                                        "The choice list: its name, or its codes here.",
                                        new Shape.Either(
                                                List.of(OBJECT_NAME, CODE_LIST, LABELLED_CODES))),
                                key("to", "The object a reference points to.", OBJECT_NAME),
                                key(
                                        "inverse",
                                        "The name of the list of records, seen from the other"
                                                + " side.",
                                        FIELD_NAME),
                                key(
                                        "formula",
                                        "An expression that works out the value; the field is then"
                                                + " derived.",
                                        TEXT),
                                key(
                                        "requiredWhen",
                                        "A condition under which a record needs a value here.",
                                        TEXT),
                                key(
                                        "readOnlyWhen",
                                        "A condition under which nobody may change the field.",
                                        TEXT),
                                key(
                                        "hiddenWhen",
                                        "A condition under which forms leave the field out.",
                                        TEXT),
                                key(
                                        "offer",
                                        "A condition on the records a reference may point to; this"
                                                + " is the record that refers.",
                                        TEXT),
                                key(
                                        "fill",
                                        "Fields that get a value when a record is chosen: field"
                                                + " here, field there.",
                                        new Shape.Named(Names.FIELD, FIELD_NAMES, FIELD_NAME))));

        private static final Shape TRIGGER =
                new Shape.Either(
                        List.of(
                                new Shape.Text(
                                        null,
                                        "create, change, retire, or change of with field names"),
                                new Shape.ListOf(TEXT)));

        private static final Shape CHECKS =
                new Shape.ListOf(
                        new Shape.Keys(
                                List.of(
                                        key("name", "What the check is called.", FIELD_NAME),
                                        needed("that", "The condition that must be true.", TEXT),
                                        needed(
                                                "say",
                                                "The message when it is not, with expressions in"
                                                        + " braces.",
                                                TEXT),
                                        key("at", "The field the message is about.", FIELD_NAME),
                                        key(
                                                "severity",
                                                "Whether it stops a save (error, the default) or"
                                                        + " only warns.",
                                                new Shape.Word(List.of("error", "warning"))),
                                        key(
                                                "on",
                                                "When it is looked at; any save when absent.",
                                                TRIGGER),
                                        key(
                                                "before",
                                                "Transitions before which it is looked at, and only"
                                                        + " then.",
                                                new Shape.Either(
                                                        List.of(
                                                                FIELD_NAME,
                                                                new Shape.ListOf(FIELD_NAME)))))));

        private static final Shape RULES =
                new Shape.Named(
                        Names.FIELD,
                        FIELD_NAMES,
                        new Shape.Keys(
                                List.of(
                                        key(
                                                "label",
                                                "What people read; made from the name when"
                                                        + " absent.",
                                                TEXT),
                                        key("describe", "What the rule is for.", TEXT),
                                        needed("on", "The change that sets it off.", TRIGGER),
                                        key(
                                                "when",
                                                "The condition under which it does something;"
                                                        + " always when absent.",
                                                TEXT),
                                        needed("then", "Its steps, one a line.", TEXT))));

        private static final Shape STATES =
                new Shape.Either(
                        List.of(
                                CODE_LIST,
                                new Shape.Named(
                                        Pattern.compile(".{1,60}"),
                                        "at most 60 characters",
                                        TEXT)));

        private static final Shape LIFECYCLE =
                new Shape.Keys(
                        List.of(
                                key(
                                        "field",
                                        "The field that holds the state; state when absent.",
                                        FIELD_NAME),
                                needed("initial", "The state of a new record.", TEXT),
                                needed(
                                        "states",
                                        "The states, each with its label when it needs one.",
                                        STATES),
                                needed(
                                        "transitions",
                                        "The steps from state to state.",
                                        new Shape.Named(
                                                Names.FIELD,
                                                FIELD_NAMES,
                                                new Shape.Keys(
                                                        List.of(
                                                                key(
                                                                        "label",
                                                                        "What people read on its"
                                                                                + " button.",
                                                                        TEXT),
                                                                key(
                                                                        "describe",
                                                                        "What it means.",
                                                                        TEXT),
                                                                needed(
                                                                        "from",
                                                                        "The state or states in"
                                                                                + " which it can be"
                                                                                + " taken.",
                                                                        new Shape.Either(
                                                                                List.of(
                                                                                        TEXT,
                                                                                        CODE_LIST))),
                                                                needed(
                                                                        "to",
                                                                        "The state it leads to.",
                                                                        TEXT)))))));

        static final Shape.Keys PACKAGE =
                new Shape.Keys(
                        List.of(
                                needed(
                                        "package",
                                        "The package's name, as its folder is called.",
                                        ADDRESS_NAME),
                                needed(
                                        "version",
                                        "The package's version, as in 1.0.",
                                        new Shape.Text(
                                                Pattern.compile("\\d+(\\.\\d+){0,2}"),
                                                "one to three numbers with points between")),
                                key(
                                        "label",
                                        "What people read; made from the name when absent.",
                                        TEXT),
                                key("describe", "What the package is for.", TEXT),
                                key(
                                        "depends",
                                        "Packages whose objects this one uses.",
                                        new Shape.ListOf(ADDRESS_NAME)),
                                key(
                                        "sealed",
                                        "Whether the package is delivered and may not be edited"
                                                + " here.",
                                        FLAG),
                                key(
                                        "languages",
                                        "Languages of localised texts, the main one first; en when"
                                                + " absent.",
                                        new Shape.ListOf(
                                                new Shape.Text(
                                                        Pattern.compile("[a-z]{2}"),
                                                        "two small letters, as in en"))),
                                key(
                                        "currency",
                                        "The currency of amounts that name none (ISO 4217); EUR"
                                                + " when absent.",
                                        new Shape.Text(
                                                Pattern.compile("[A-Z]{3}"),
                                                "three capital letters, as in EUR")),
                                key(
                                        "zone",
                                        "The time zone in which today is meant; UTC when absent.",
                                        TEXT)));

        static final Shape.Keys OBJECT =
                new Shape.Keys(
                        List.of(
                                needed("object", "The object's name.", OBJECT_NAME),
                                key(
                                        "label",
                                        "What people read; made from the name when absent.",
                                        TEXT),
                                key(
                                        "plural",
                                        "The label of several; made from the label when absent.",
                                        TEXT),
                                key("describe", "What a record of this object is.", TEXT),
                                key(
                                        "was",
                                        "The object's name in the last release, when it is"
                                                + " renamed.",
                                        OBJECT_NAME),
                                key(
                                        "key",
                                        "The field or fields that identify a record for people and"
                                                + " other systems.",
                                        new Shape.Either(
                                                List.of(FIELD_NAME, new Shape.ListOf(FIELD_NAME)))),
                                key(
                                        "numbering",
                                        "A field that numbers itself when a record is created.",
                                        new Shape.Keys(
                                                List.of(
                                                        needed(
                                                                "field",
                                                                "The text field that gets the"
                                                                        + " number.",
                                                                FIELD_NAME),
                                                        needed(
                                                                "pattern",
                                                                "How the number is written, as in"
                                                                    + " ST-{year}-{sequence:6}.",
                                                                TEXT)))),
                                key(
                                        "removal",
                                        "Whether records are retired (the default), deleted, or"
                                                + " neither.",
                                        new Shape.Word(List.of("retire", "delete", "none"))),
                                needed(
                                        "fields",
                                        "The fields of a record.",
                                        new Shape.Named(Names.FIELD, FIELD_NAMES, FIELD)),
                                key(
                                        "parts",
                                        "Lists of line items that belong to a record.",
                                        new Shape.Named(
                                                Names.FIELD,
                                                FIELD_NAMES,
                                                new Shape.Keys(
                                                        List.of(
                                                                key(
                                                                        "label",
                                                                        "What people read; made"
                                                                            + " from the name when"
                                                                            + " absent.",
                                                                        TEXT),
                                                                key(
                                                                        "describe",
                                                                        "What a line item is.",
                                                                        TEXT),
                                                                key(
                                                                        "was",
                                                                        "The part's name in the"
                                                                            + " last release, when"
                                                                            + " it is renamed.",
                                                                        FIELD_NAME),
                                                                needed(
                                                                        "fields",
                                                                        "The fields of a line"
                                                                                + " item.",
                                                                        new Shape.Named(
                                                                                Names.FIELD,
                                                                                FIELD_NAMES,
                                                                                FIELD)),
                                                                key(
                                                                        "checks",
                                                                        "What must hold of each"
                                                                                + " line item.",
                                                                        CHECKS))))),
                                key(
                                        "lifecycle",
                                        "The states of a record and the transitions between"
                                                + " them.",
                                        LIFECYCLE),
                                key("checks", "What must hold of a record.", CHECKS),
                                key("rules", "What happens when.", RULES)));

        static final Shape.Keys EXTENSION =
                new Shape.Keys(
                        List.of(
                                needed(
                                        "extend",
                                        "The object of another package that gets more.",
                                        OBJECT_NAME),
                                key("describe", "Why it gets more.", TEXT),
                                key(
                                        "fields",
                                        "Fields that are added.",
                                        new Shape.Named(Names.FIELD, FIELD_NAMES, FIELD)),
                                key("checks", "What must hold besides.", CHECKS),
                                key("rules", "What happens besides.", RULES)));

        static final Shape.Keys CHOICES =
                new Shape.Keys(
                        List.of(
                                needed("choices", "The choice list's name.", OBJECT_NAME),
                                key(
                                        "label",
                                        "What people read; made from the name when absent.",
                                        TEXT),
                                needed(
                                        "codes",
                                        "The codes, each with its label when it needs one.",
                                        new Shape.Either(List.of(CODE_LIST, LABELLED_CODES)))));

        static final Shape.Keys SERVICE =
                new Shape.Keys(
                        List.of(
                                needed(
                                        "service",
                                        "The service's name, as it appears in addresses.",
                                        ADDRESS_NAME),
                                needed(
                                        "version",
                                        "The version of the contract.",
                                        new Shape.Whole(1, 999)),
                                key(
                                        "label",
                                        "What people read; made from the name when absent.",
                                        TEXT),
                                key("describe", "What the service is for.", TEXT),
                                key(
                                        "protocols",
                                        "The protocols it speaks; rest when absent.",
                                        new Shape.ListOf(
                                                new Shape.Word(List.of("rest", "soap", "odata")))),
                                needed(
                                        "resources",
                                        "What the service shows.",
                                        new Shape.Named(
                                                Names.ADDRESS,
                                                ADDRESS_NAMES,
                                                new Shape.Keys(
                                                        List.of(
                                                                needed(
                                                                        "object",
                                                                        "The object it shows.",
                                                                        OBJECT_NAME),
                                                                key(
                                                                        "describe",
                                                                        "What the resource is, for"
                                                                                + " the contract.",
                                                                        TEXT),
                                                                key(
                                                                        "where",
                                                                        "A condition that its"
                                                                                + " records meet;"
                                                                                + " others are not"
                                                                                + " there.",
                                                                        TEXT),
                                                                key(
                                                                        "preset",
                                                                        "Values that every record"
                                                                            + " created here has.",
                                                                        new Shape.Named(
                                                                                Names.FIELD,
                                                                                FIELD_NAMES,
                                                                                TEXT)),
                                                                operation(
                                                                        "create",
                                                                        "Creating a record"),
                                                                operation(
                                                                        "read",
                                                                        "Reading a record by its"
                                                                                + " key"),
                                                                operation(
                                                                        "update",
                                                                        "Changing a record"),
                                                                key(
                                                                        "query",
                                                                        "Finding records, with"
                                                                            + " these fields in the"
                                                                            + " answer.",
                                                                        new Shape.Keys(
                                                                                List.of(
                                                                                        needed(
                                                                                                "fields",
                                                                                                "The fields"
                                                                                                    + " of the"
                                                                                                    + " answer.",
                                                                                                FIELD_LIST),
                                                                                        key(
                                                                                                "filter",
                                                                                                "Fields"
                                                                                                    + " a caller"
                                                                                                    + " may filter"
                                                                                                    + " by.",
                                                                                                FIELD_LIST),
                                                                                        key(
                                                                                                "sort",
                                                                                                "Fields"
                                                                                                    + " a caller"
                                                                                                    + " may sort"
                                                                                                    + " by.",
                                                                                                FIELD_LIST)))),
                                                                key(
                                                                        "remove",
                                                                        "Whether a caller may"
                                                                            + " retire or delete a"
                                                                            + " record.",
                                                                        FLAG),
                                                                key(
                                                                        "needsVersion",
                                                                        "Whether a change must say"
                                                                            + " which version of"
                                                                            + " the record it is"
                                                                            + " based on.",
                                                                        FLAG),
                                                                key(
                                                                        "calls",
                                                                        "Transitions a caller may"
                                                                                + " take.",
                                                                        FIELD_LIST)))))));

        private static Shape.Key operation(String name, String describe) {
            return key(
                    name,
                    describe + ", with these fields.",
                    new Shape.Keys(
                            List.of(
                                    needed(
                                            "fields",
                                            "The fields, with commas: all, vessel.name,"
                                                    + " charges(tariff, quantity).",
                                            FIELD_LIST))));
        }

        private static Shape.Key key(String name, String describe, Shape shape) {
            return new Shape.Key(name, false, describe, shape);
        }

        private static Shape.Key needed(String name, String describe, Shape shape) {
            return new Shape.Key(name, true, describe, shape);
        }

        private Shapes() {}
    }
}
