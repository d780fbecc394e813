package sandpiper.model.shape;

import static sandpiper.model.shape.Shapes.FIELD_NAME;
import static sandpiper.model.shape.Shapes.LABEL;
import static sandpiper.model.shape.Shapes.OBJECT_NAME;
import static sandpiper.model.shape.Shapes.TEXT;
import static sandpiper.model.shape.Shapes.key;
import static sandpiper.model.shape.Shapes.needed;

import java.util.List;
import java.util.regex.Pattern;

/** What may stand in the file of requirements and their examples. */
final class RequirementShapes {
    private static final Shape VALUES = Shapes.named(new Shape.Free());

    private static final Shape ACTION =
            new Shape.Keys(
                    List.of(
                            key("create", "The object of which a record is made.", OBJECT_NAME),
                            key(
                                    "change",
                                    "The record that is changed: Object/key or a name.",
                                    TEXT),
                            key("retire", "The record that is retired.", TEXT),
                            key("call", "The function that is called: Stay.quote, checkIn.", TEXT),
                            key("transition", "The transition that is taken.", TEXT),
                            key("of", "The record it is done with: Object/key or a name.", TEXT),
                            key("values", "The fields that are given.", VALUES),
                            key("with", "The arguments of a function.", VALUES),
                            key("as", "A name for the record, for what comes after.", FIELD_NAME),
                            key("by", "The user or client who does it.", TEXT)));

    private static final Shape ACTIONS =
            new Shape.Either(List.of(ACTION, new Shape.ListOf(ACTION)));

    private static final Shape EXPECTED =
            new Shape.Keys(
                    List.of(
                            key("refused", "Words of the message with which it is refused.", TEXT),
                            key("at", "The field that message is about.", TEXT),
                            key("warns", "Words of a warning.", TEXT),
                            key("result", "What the function gives back.", new Shape.Free()),
                            key("values", "Fields of the record as they are then.", VALUES),
                            key(
                                    "records",
                                    "Fields of other records: Object/key or a name, and values.",
                                    new Shape.Named(
                                            Pattern.compile(".{1,200}"), "any text", VALUES)),
                            key(
                                    "events",
                                    "The events that were raised, each a name or a name with"
                                            + " values; all that were.",
                                    new Shape.ListOf(new Shape.Free()))));

    static final Shape.Keys REQUIREMENT =
            new Shape.Keys(
                    List.of(
                            key(
                                    "given",
                                    "The records there are before each example of this file.",
                                    new Shape.ListOf(ACTION)),
                            needed(
                                    "requirements",
                                    "Lines of what the customer asked for, by their numbers.",
                                    new Shape.Named(
                                            Pattern.compile("[A-Za-z0-9][A-Za-z0-9.-]{0,19}"),
                                            "a number such as R-7: letters, digits, points and"
                                                    + " hyphens, at most 20",
                                            new Shape.Keys(
                                                    List.of(
                                                            needed(
                                                                    "text",
                                                                    "What was asked for, in the"
                                                                            + " customer's words.",
                                                                    TEXT),
                                                            key(
                                                                    "examples",
                                                                    "What proves it.",
                                                                    Shapes.named(
                                                                            new Shape.Keys(
                                                                                    example())))))))));

    private RequirementShapes() {}

    private static List<Shape.Key> example() {
        return List.of(
                LABEL,
                key(
                        "today",
                        "The day on which it takes place; 2026-06-01 when absent.",
                        new Shape.Text(
                                Pattern.compile("\\d{4}-\\d{2}-\\d{2}"),
                                "a date, as in 2026-06-01")),
                key(
                        "answers",
                        "What outside services answer, by calls: tide-table.rate: 1.09. Codes are"
                                + " taken unseen.",
                        new Shape.Named(Pattern.compile(".{1,200}"), "any text", new Shape.Free())),
                key("given", "The records there are before.", new Shape.ListOf(ACTION)),
                needed("when", "What is done; the last of several is what is looked at.", ACTIONS),
                needed("then", "What comes of it.", EXPECTED));
    }
}
