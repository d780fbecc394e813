package sandpiper.model.shape;

import static sandpiper.model.shape.Shapes.FIELD_LIST;
import static sandpiper.model.shape.Shapes.FIELD_NAME;
import static sandpiper.model.shape.Shapes.TEXT;
import static sandpiper.model.shape.Shapes.key;
import static sandpiper.model.shape.Shapes.needed;

import java.util.List;

/** What may be said of the form and the list of an object. */
final class LayoutShapes {
    private static final Shape SECTION =
            new Shape.Keys(
                    List.of(
                            key("heading", "What stands over its fields.", TEXT),
                            needed("fields", "Its fields, in their order.", FIELD_LIST),
                            key(
                                    "after",
                                    "The field behind which it comes; without a heading its fields"
                                            + " join the section of that one.",
                                    FIELD_NAME)));

    private static final Shape SIDE =
            new Shape.Keys(
                    List.of(
                            needed(
                                    "records",
                                    "The records that refer to this one: the name they are seen by"
                                            + " from here, or Stay.vessel.",
                                    TEXT),
                            key("fields", "The fields that are shown of them.", FIELD_LIST)));

    static final Shape.Key FORM =
            key(
                    "form",
                    "How the form of a record is laid out.",
                    new Shape.Keys(
                            List.of(
                                    key(
                                            "sections",
                                            "Fields that stand together; those in no section come"
                                                    + " last.",
                                            new Shape.ListOf(SECTION)),
                                    key("wide", "Fields that take a whole line.", FIELD_LIST),
                                    key(
                                            "leaveOut",
                                            "Fields that the form does not show.",
                                            FIELD_LIST),
                                    key(
                                            "side",
                                            "Related records beside the form; all there are when"
                                                    + " absent.",
                                            new Shape.ListOf(SIDE)),
                                    key(
                                            "details",
                                            "By reference, the fields shown of the record it"
                                                    + " refers to.",
                                            Shapes.named(FIELD_LIST)))));

    static final Shape.Key LIST =
            key(
                    "list",
                    "How lists of records are laid out.",
                    new Shape.Keys(
                            List.of(
                                    key("columns", "The fields that are columns.", FIELD_LIST),
                                    key(
                                            "after",
                                            "The column behind which those of an extension come.",
                                            FIELD_NAME),
                                    key(
                                            "sort",
                                            "The field it is sorted by at first; -arrival for"
                                                    + " falling.",
                                            TEXT))));

    private LayoutShapes() {}
}
