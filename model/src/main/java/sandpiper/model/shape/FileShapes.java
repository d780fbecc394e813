package sandpiper.model.shape;

import static sandpiper.model.shape.Shapes.ADDRESS_NAME;
import static sandpiper.model.shape.Shapes.CODE_LIST;
import static sandpiper.model.shape.Shapes.FIELD_NAME;
import static sandpiper.model.shape.Shapes.FIELD_NAMES;
import static sandpiper.model.shape.Shapes.FLAG;
import static sandpiper.model.shape.Shapes.LABEL;
import static sandpiper.model.shape.Shapes.LABELLED_CODES;
import static sandpiper.model.shape.Shapes.OBJECT_NAME;
import static sandpiper.model.shape.Shapes.TEXT;
import static sandpiper.model.shape.Shapes.key;
import static sandpiper.model.shape.Shapes.needed;

import java.util.List;
import java.util.regex.Pattern;
import sandpiper.model.Names;
import sandpiper.model.definition.Rounding;
import sandpiper.model.definition.WhenUsed;

/** What may stand in each kind of definition file. */
final class FileShapes {
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
                            key("label", "What people read; made from the name when absent.", TEXT),
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
                                    "rates",
                                    "The call that exchange rates of that currency come from: a"
                                            + " currency and a day, how much of it one is. As in"
                                            + " tide-table.rate.",
                                    new Shape.Text(
                                            Pattern.compile(
                                                    sandpiper.model.Names.ADDRESS.pattern()
                                                            + "\\.[a-z][A-Za-z0-9]*"),
                                            "a connection and its call, as in"
                                                    + " tide-table.rate")),
                            key(
                                    "zone",
                                    "The time zone in which today is meant; UTC when absent.",
                                    TEXT),
                            key(
                                    "rounding",
                                    "How what is worked out is brought to the decimal places of"
                                            + " its field; half-up when absent.",
                                    new Shape.Word(Rounding.allWritten()))));

    static final Shape.Keys OBJECT =
            new Shape.Keys(
                    List.of(
                            needed("object", "The object's name.", OBJECT_NAME),
                            key(
                                    "label",
                                    "What people read, perhaps by language; made from the name when"
                                            + " absent.",
                                    Shapes.SPOKEN),
                            key(
                                    "plural",
                                    "The label of several; made from the label when absent.",
                                    Shapes.SPOKEN),
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
                                                            TEXT),
                                                    key(
                                                            "gapless",
                                                            "Whether no number may be left out,"
                                                                    + " as law asks of invoices;"
                                                                    + " those who create then wait"
                                                                    + " for each other.",
                                                            FLAG)))),
                            key(
                                    "removal",
                                    "Whether records are retired (the default), deleted, or"
                                        + " neither; { retire: refuse } says what happens to one"
                                        + " that others use.",
                                    new Shape.Either(
                                            List.of(
                                                    new Shape.Word(
                                                            List.of("retire", "delete", "none")),
                                                    new Shape.Keys(
                                                            List.of(
                                                                    needed(
                                                                            "retire",
                                                                            "Retires records. One"
                                                                                + " that others use"
                                                                                + " is refused,"
                                                                                + " taken when"
                                                                                + " whoever asks"
                                                                                + " says so (ask,"
                                                                                + " the default),"
                                                                                + " or taken"
                                                                                + " freely.",
                                                                            new Shape.Word(
                                                                                    WhenUsed
                                                                                            .allWritten()))))))),
                            needed(
                                    "fields",
                                    "The fields of a record.",
                                    new Shape.Named(Names.FIELD, FIELD_NAMES, FieldShapes.FIELD)),
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
                                                                    Shapes.SPOKEN),
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
                                                                            FieldShapes.FIELD)),
                                                            key(
                                                                    "checks",
                                                                    "What must hold of each"
                                                                            + " line item.",
                                                                    LogicShapes.CHECKS),
                                                            key(
                                                                    "readOnlyWhen",
                                                                    "A condition over the record"
                                                                            + " under which its"
                                                                            + " line items stay as"
                                                                            + " they are.",
                                                                    FieldShapes.CONDITION))))),
                            LayoutShapes.FORM,
                            LayoutShapes.LIST,
                            key(
                                    "lifecycle",
                                    "The states of a record and the transitions between" + " them.",
                                    LogicShapes.LIFECYCLE),
                            key("checks", "What must hold of a record.", LogicShapes.CHECKS),
                            key("rules", "What happens when.", LogicShapes.RULES),
                            key("functions", "What can be called by name.", LogicShapes.FUNCTIONS),
                            key(
                                    "handlers",
                                    "What is done when an event arrives.",
                                    LogicShapes.HANDLERS),
                            key(
                                    "schedules",
                                    "What is done when its time comes.",
                                    LogicShapes.SCHEDULES)));

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
                                    new Shape.Named(Names.FIELD, FIELD_NAMES, FieldShapes.FIELD)),
                            LayoutShapes.FORM,
                            LayoutShapes.LIST,
                            key("checks", "What must hold besides.", LogicShapes.CHECKS),
                            key("rules", "What happens besides.", LogicShapes.RULES),
                            key("functions", "What can be called besides.", LogicShapes.FUNCTIONS),
                            key(
                                    "handlers",
                                    "What is done besides when an event arrives.",
                                    LogicShapes.HANDLERS),
                            key(
                                    "schedules",
                                    "What is done besides when its time comes.",
                                    LogicShapes.SCHEDULES)));

    static final Shape.Keys CHOICES =
            new Shape.Keys(
                    List.of(
                            needed("choices", "The choice list's name.", OBJECT_NAME),
                            key("label", "What people read; made from the name when absent.", TEXT),
                            needed(
                                    "codes",
                                    "The codes, each with its label when it needs one.",
                                    new Shape.Either(List.of(CODE_LIST, LABELLED_CODES)))));

    static final Shape.Keys EVENT =
            new Shape.Keys(
                    List.of(
                            needed("event", "The event's name.", OBJECT_NAME),
                            LABEL,
                            key("describe", "What has happened when it is raised.", TEXT),
                            key(
                                    "about",
                                    "The object whose record it is about; events about one record"
                                            + " stay in order.",
                                    OBJECT_NAME),
                            key("fields", "What it tells.", Shapes.named(FieldShapes.VALUE))));

    private FileShapes() {}
}
