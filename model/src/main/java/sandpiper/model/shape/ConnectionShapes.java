package sandpiper.model.shape;

import static sandpiper.model.shape.Shapes.ADDRESS_NAME;
import static sandpiper.model.shape.Shapes.TEXT;
import static sandpiper.model.shape.Shapes.key;
import static sandpiper.model.shape.Shapes.needed;

import java.util.List;
import java.util.regex.Pattern;

/** What may stand in the file of a connection. */
final class ConnectionShapes {
    private static final Shape OPERATION =
            new Shape.Text(
                    Pattern.compile("(GET|POST|PUT|PATCH|DELETE) /\\S*"),
                    "a method and a path of the contract, as in GET /rates/{currency}");

    private static final Shape PERIOD =
            new Shape.Text(
                    Pattern.compile("P(?=.)(\\d+D)?(T(?=.)(\\d+H)?(\\d+M)?(\\d+S)?)?"),
                    "a duration, as in PT1H or P1D");

    private static final Shape LOOKUP =
            new Shape.Keys(
                    List.of(
                            needed("call", "The operation that gives the list.", OPERATION),
                            key(
                                    "items",
                                    "Where the list is in the answer; the answer itself when"
                                            + " absent.",
                                    TEXT),
                            needed("key", "Where the code is in an entry.", TEXT),
                            key(
                                    "label",
                                    "Where the label is in an entry; the code when absent.",
                                    TEXT),
                            key(
                                    "search",
                                    "The parameter of the operation that takes what somebody"
                                            + " types.",
                                    TEXT),
                            key(
                                    "one",
                                    "The operation that gives one entry by its code; looked up in"
                                            + " the list when absent.",
                                    OPERATION),
                            key(
                                    "keep",
                                    "How long answers are kept; ten minutes when absent.",
                                    PERIOD),
                            key(
                                    "whenDown",
                                    "What becomes of a new value while the service does not"
                                            + " answer: refused (refuse, the default), or taken"
                                            + " unseen (accept).",
                                    new Shape.Word(List.of("accept", "refuse")))));

    private static final Shape CALL =
            new Shape.Keys(
                    List.of(
                            key("describe", "What it gives.", TEXT),
                            needed("call", "The operation that is called.", OPERATION),
                            key(
                                    "parameters",
                                    "What a caller gives, by the names of the contract or, with"
                                            + " sent, by others.",
                                    Shapes.named(FieldShapes.sentValue())),
                            key(
                                    "returns",
                                    "What it gives back; nothing when absent.",
                                    FieldShapes.VALUE),
                            key(
                                    "at",
                                    "Where that is in the answer; the answer itself when absent.",
                                    TEXT),
                            key(
                                    "keep",
                                    "How long answers are kept, so that changes may read them;"
                                            + " each call asks anew when absent.",
                                    PERIOD)));

    static final Shape.Keys CONNECTION =
            new Shape.Keys(
                    List.of(
                            needed("connection", "The connection's name.", ADDRESS_NAME),
                            key("label", "What people read; made from the name when absent.", TEXT),
                            key("describe", "What the outside service gives.", TEXT),
                            needed(
                                    "contract",
                                    "The document that describes it (OpenAPI 3.0 or 3.1), beside"
                                            + " this file.",
                                    new Shape.Text(
                                            Pattern.compile("[^/]+\\.openapi\\.(json|yaml)"),
                                            "the name of a file beside this one, as in"
                                                    + " tide-table.openapi.json")),
                            key(
                                    "address",
                                    "The setting of the instance that gives its address and"
                                            + " credentials; the connection's name when absent.",
                                    new Shape.Keys(
                                            List.of(
                                                    needed(
                                                            "setting",
                                                            "The name of the setting.",
                                                            ADDRESS_NAME)))),
                            key(
                                    "lookups",
                                    "Codes with labels, for pick lists.",
                                    Shapes.named(LOOKUP)),
                            key("calls", "Questions that steps ask.", Shapes.named(CALL))));

    private ConnectionShapes() {}
}
