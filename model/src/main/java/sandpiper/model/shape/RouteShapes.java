package sandpiper.model.shape;

import static sandpiper.model.shape.Shapes.ADDRESS_NAME;
import static sandpiper.model.shape.Shapes.OBJECT_NAME;
import static sandpiper.model.shape.Shapes.TEXT;
import static sandpiper.model.shape.Shapes.key;
import static sandpiper.model.shape.Shapes.needed;

import java.util.List;
import java.util.regex.Pattern;

/** What may stand in the file of a route. */
final class RouteShapes {
    /** An object, or a part of one. */
    static final Shape TARGET =
            new Shape.Text(
                    Pattern.compile("[A-Z][A-Za-z0-9]*(\\.[a-z][A-Za-z0-9]*)?"),
                    "an object, as in Stay, or line items, as in Stay.charges");

    static final Shape.Keys ROUTE =
            new Shape.Keys(
                    List.of(
                            needed("route", "The route's name.", ADDRESS_NAME),
                            key("label", "What people read; made from the name when absent.", TEXT),
                            key("describe", "What the route is for.", TEXT),
                            needed(
                                    "steps",
                                    "Which documents are made from which others.",
                                    new Shape.ListOf(
                                            new Shape.Keys(
                                                    List.of(
                                                            needed(
                                                                    "from",
                                                                    "The object whose values"
                                                                            + " travel.",
                                                                    OBJECT_NAME),
                                                            needed(
                                                                    "to",
                                                                    "The object, or its line items,"
                                                                            + " that get them.",
                                                                    TARGET),
                                                            key(
                                                                    "through",
                                                                    "The references that lead from"
                                                                        + " there to the source:"
                                                                        + " vessel.owner; none for"
                                                                        + " line items of its own.",
                                                                    TEXT))))),
                            key(
                                    "services",
                                    "Services whose resources show what travels.",
                                    new Shape.ListOf(ADDRESS_NAME))));

    private RouteShapes() {}
}
