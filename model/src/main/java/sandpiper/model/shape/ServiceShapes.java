package sandpiper.model.shape;

import static sandpiper.model.shape.Shapes.ADDRESS_NAME;
import static sandpiper.model.shape.Shapes.ADDRESS_NAMES;
import static sandpiper.model.shape.Shapes.FIELD_LIST;
import static sandpiper.model.shape.Shapes.FIELD_NAMES;
import static sandpiper.model.shape.Shapes.FLAG;
import static sandpiper.model.shape.Shapes.OBJECT_NAME;
import static sandpiper.model.shape.Shapes.TEXT;
import static sandpiper.model.shape.Shapes.key;
import static sandpiper.model.shape.Shapes.needed;

import java.util.List;
import sandpiper.model.Names;

/** What may stand in the file of a service. */
final class ServiceShapes {
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
                            key("label", "What people read; made from the name when absent.", TEXT),
                            key("describe", "What the service is for.", TEXT),
                            key(
                                    "travelling",
                                    "Whether its resources show what travels along routes that"
                                            + " name the service; yes when absent.",
                                    FLAG),
                            key(
                                    "protocols",
                                    "The protocols it speaks; rest when absent.",
                                    new Shape.ListOf(
                                            new Shape.Word(List.of("rest", "soap", "odata")))),
                            key(
                                    "functions",
                                    "Functions of objects as a whole that a caller may call:"
                                            + " Stay.quote.",
                                    FIELD_LIST),
                            key(
                                    "events",
                                    "Events that it publishes: StayEnded, Stay.created.",
                                    FIELD_LIST),
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
                                                                    "create", "Creating a record"),
                                                            operation(
                                                                    "read",
                                                                    "Reading a record by its"
                                                                            + " key"),
                                                            operation(
                                                                    "update", "Changing a record"),
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

    /** What a package adds to the service of another one. */
    static final Shape.Keys EXTENSION =
            new Shape.Keys(
                    List.of(
                            needed("extend", "The service that is added to.", ADDRESS_NAME),
                            key(
                                    "version",
                                    "Which version of it; 1 when absent.",
                                    new Shape.Whole(1, 999)),
                            needed(
                                    "resources",
                                    "What is added to its resources.",
                                    new Shape.Named(
                                            Names.ADDRESS,
                                            ADDRESS_NAMES,
                                            new Shape.Keys(
                                                    List.of(
                                                            more("create", "taken for a new"),
                                                            more("read", "shown of a single"),
                                                            more("update", "taken to change a"),
                                                            more("query", "shown of each found"),
                                                            key(
                                                                    "filter",
                                                                    "Fields a caller may filter by"
                                                                            + " besides.",
                                                                    FIELD_LIST),
                                                            key(
                                                                    "sort",
                                                                    "Fields a caller may sort by"
                                                                            + " besides.",
                                                                    FIELD_LIST)))))));

    private ServiceShapes() {}

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

    private static Shape.Key more(String name, String use) {
        return key(
                name,
                "Fields of the package that are %s record besides.".formatted(use),
                FIELD_LIST);
    }
}
