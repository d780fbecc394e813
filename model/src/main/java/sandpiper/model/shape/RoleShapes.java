package sandpiper.model.shape;

import static sandpiper.model.shape.Shapes.ADDRESS_NAME;
import static sandpiper.model.shape.Shapes.CODE_LIST;
import static sandpiper.model.shape.Shapes.FIELD_LIST;
import static sandpiper.model.shape.Shapes.TEXT;
import static sandpiper.model.shape.Shapes.key;
import static sandpiper.model.shape.Shapes.needed;

import java.util.List;
import java.util.regex.Pattern;
import sandpiper.model.Names;
import sandpiper.model.definition.DeliveredRole;

/** What may stand in the file of a role. */
final class RoleShapes {
    private static final Shape ACTION = new Shape.Word(DeliveredRole.ACTIONS);

    static final Shape.Keys ROLE =
            new Shape.Keys(
                    List.of(
                            needed("role", "The role's name.", ADDRESS_NAME),
                            key("label", "What people read; made from the name when absent.", TEXT),
                            key("describe", "Who the role is for.", TEXT),
                            key(
                                    "services",
                                    "Operations of services: berth-desk/stays/read, with * for"
                                            + " all.",
                                    CODE_LIST),
                            key(
                                    "objects",
                                    "What may be done with the records of each object.",
                                    new Shape.Named(
                                            Pattern.compile("\\*|" + Names.OBJECT.pattern()),
                                            "an object's name begins with a capital letter; *"
                                                    + " stands for every object",
                                            new Shape.Keys(
                                                    List.of(
                                                            needed(
                                                                    "actions",
                                                                    "What may be done: view,"
                                                                            + " create, edit,"
                                                                            + " retire.",
                                                                    new Shape.Either(
                                                                            List.of(
                                                                                    ACTION,
                                                                                    new Shape
                                                                                            .ListOf(
                                                                                            ACTION)))),
                                                            key(
                                                                    "where",
                                                                    "A condition that the records"
                                                                            + " meet.",
                                                                    TEXT),
                                                            key(
                                                                    "hidden",
                                                                    "Fields that are not seen.",
                                                                    FIELD_LIST),
                                                            key(
                                                                    "readOnly",
                                                                    "Fields that are seen but not"
                                                                            + " changed.",
                                                                    FIELD_LIST)))))));

    private RoleShapes() {}
}
