package sandpiper.model.shape;

import static sandpiper.model.shape.Shapes.ADDRESS_NAME;
import static sandpiper.model.shape.Shapes.FIELD_NAME;
import static sandpiper.model.shape.Shapes.FIELD_NAMES;
import static sandpiper.model.shape.Shapes.FLAG;
import static sandpiper.model.shape.Shapes.TEXT;
import static sandpiper.model.shape.Shapes.key;
import static sandpiper.model.shape.Shapes.needed;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import sandpiper.model.Names;
import sandpiper.model.type.ByteCount;
import sandpiper.model.type.MediaTypes;
import sandpiper.model.type.TypeKeyword;

/** What is said of fields, and of the values that functions and events carry. */
final class FieldShapes {
    /** What has no meaning for a value that is not kept. */
    private static final Set<String> OF_KEPT_FIELDS =
            Set.of(
                    "unique",
                    "from",
                    "readOnly",
                    "default",
                    "was",
                    "inverse",
                    "formula",
                    "requiredWhen",
                    "readOnlyWhen",
                    "hiddenWhen",
                    "offer",
                    "fill",
                    "travels",
                    "accepts",
                    "largest");

    /** A condition, or one with what people are told when it stands in the way. */
    static final Shape CONDITION =
            new Shape.Either(
                    List.of(
                            TEXT,
                            new Shape.Keys(
                                    List.of(
                                            needed("that", "The condition.", TEXT),
                                            needed(
                                                    "say",
                                                    "What people are told when it stands in the"
                                                            + " way; expressions in braces.",
                                                    TEXT)))));

    private static final Shape TRAVELS =
            new Shape.Keys(
                    List.of(
                            needed("route", "The route along which it travels.", ADDRESS_NAME),
                            key(
                                    "to",
                                    "Objects and parts on the route that get the field; all when"
                                            + " absent.",
                                    new Shape.ListOf(RouteShapes.TARGET)),
                            key(
                                    "follows",
                                    "Whether values on the way change with that of the source;"
                                            + " otherwise they stay what they were.",
                                    FLAG)));

    static final Shape.Keys FIELD =
            new Shape.Keys(
                    List.of(
                            key(
                                    "type",
                                    "What kind of value the field has.",
                                    new Shape.Word(TypeKeyword.words())),
                            key(
                                    "label",
                                    "What people read, perhaps by language; made from the name when"
                                            + " absent.",
                                    Shapes.SPOKEN),
                            key("describe", "What the field means, for forms and contracts.", TEXT),
                            key("required", "Whether a record needs a value here.", FLAG),
                            key("unique", "Whether no two records may have the same value.", FLAG),
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
                                            List.of(
                                                    Shapes.OBJECT_NAME,
                                                    Shapes.CODE_LIST,
                                                    Shapes.LABELLED_CODES))),
                            key(
                                    "from",
                                    "Where the codes of a choice come from, instead of a list: a"
                                            + " lookup of a connection, as in"
                                            + " tide-table.currencies.",
                                    new Shape.Text(
                                            Pattern.compile(
                                                    Names.ADDRESS.pattern()
                                                            + "\\.[a-z][A-Za-z0-9]*"),
                                            "a connection and its lookup, as in"
                                                    + " tide-table.currencies")),
                            key("to", "The object a reference points to.", Shapes.OBJECT_NAME),
                            key(
                                    "accepts",
                                    "Media types a file may be of, also all of a kind as in"
                                            + " image/*; any when absent.",
                                    new Shape.ListOf(
                                            new Shape.Text(
                                                    MediaTypes.RANGE,
                                                    "a media type, as in application/pdf or"
                                                            + " image/*"))),
                            key(
                                    "largest",
                                    "How large a file may be, as in 500 kB or 3 MB; 3 MB when"
                                            + " absent.",
                                    new Shape.Text(
                                            ByteCount.FORM,
                                            "a number of bytes up to 200 MB, as in 500 kB or 3"
                                                    + " MB")),
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
                                    CONDITION),
                            key(
                                    "readOnlyWhen",
                                    "A condition under which nobody may change the field.",
                                    CONDITION),
                            key(
                                    "hiddenWhen",
                                    "A condition under which forms leave the field out.",
                                    TEXT),
                            key(
                                    "offer",
                                    "A condition on the records a reference may point to; this"
                                            + " is the record that refers.",
                                    CONDITION),
                            key(
                                    "fill",
                                    "Fields that get a value when a record is chosen: field"
                                            + " here, field there.",
                                    new Shape.Named(Names.FIELD, FIELD_NAMES, FIELD_NAME)),
                            key(
                                    "travels",
                                    "Routes along which documents that are made from a record get"
                                            + " the field with its value.",
                                    new Shape.Either(
                                            List.of(
                                                    ADDRESS_NAME,
                                                    TRAVELS,
                                                    new Shape.ListOf(
                                                            new Shape.Either(
                                                                    List.of(
                                                                            ADDRESS_NAME,
                                                                            TRAVELS))))))));

    /** Contexts may stand in contexts this deep. */
    private static final int DEEPEST = 3;

    /** A value that comes in or goes out: its type alone, or more about it. */
    static final Shape VALUE = value(DEEPEST);

    /** The same of what is sent to a service outside, which may have a name of its own for it. */
    static Shape sentValue() {
        var keys = new ArrayList<>(keysOfValue(0));
        keys.add(
                key(
                        "sent",
                        "What the contract calls it, when that is another name: sent: page-size.",
                        TEXT));
        return new Shape.Either(List.of(new Shape.Word(words(0)), new Shape.Keys(keys)));
    }

    private FieldShapes() {}

    private static Shape value(int deep) {
        return new Shape.Either(
                List.of(new Shape.Word(words(0)), new Shape.Keys(keysOfValue(deep))));
    }

    private static List<Shape.Key> keysOfValue(int deep) {
        var keys =
                new ArrayList<>(
                        FIELD.keys().stream()
                                .filter(one -> !OF_KEPT_FIELDS.contains(one.name()))
                                .filter(one -> !one.name().equals("type"))
                                .toList());
        keys.addFirst(
                key(
                        "type",
                        "What kind of value it is; context for several under names.",
                        new Shape.Word(words(deep))));
        keys.add(key("list", "Whether there are many of them.", FLAG));
        if (deep > 0) {
            keys.add(key("fields", "What a context has.", Shapes.named(value(deep - 1))));
        }
        return keys;
    }

    private static List<String> words(int deep) {
        var words = new ArrayList<>(TypeKeyword.words());
        // Files belong to records: what comes in and goes out besides is small.
        words.remove(TypeKeyword.FILE.word());
        if (deep > 0) {
            words.add("context");
        }
        return words;
    }
}
