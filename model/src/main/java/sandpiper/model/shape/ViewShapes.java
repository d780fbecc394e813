package sandpiper.model.shape;

import static sandpiper.model.shape.Shapes.FIELD_LIST;
import static sandpiper.model.shape.Shapes.FIELD_NAME;
import static sandpiper.model.shape.Shapes.OBJECT_NAME;
import static sandpiper.model.shape.Shapes.TEXT;
import static sandpiper.model.shape.Shapes.key;
import static sandpiper.model.shape.Shapes.needed;

import java.util.List;
import java.util.regex.Pattern;
import sandpiper.model.definition.DeliveredView.Chart;

/** What may stand in the file of a view. */
final class ViewShapes {
    static final Shape.Keys VIEW =
            new Shape.Keys(
                    List.of(
                            needed(
                                    "view",
                                    "What people choose it by.",
                                    new Shape.Text(
                                            Pattern.compile("\\S(.{0,58}\\S)?"),
                                            "a name of at most 60 characters")),
                            needed("object", "The object whose list it is.", OBJECT_NAME),
                            key("filter", "A condition that its records meet.", TEXT),
                            key("sort", "The field it is sorted by; -arrival for falling.", TEXT),
                            key("columns", "The fields that are shown.", FIELD_LIST),
                            key(
                                    "chart",
                                    "What is drawn of the records.",
                                    new Shape.Keys(
                                            List.of(
                                                    needed(
                                                            "kind",
                                                            "How it is drawn.",
                                                            new Shape.Word(Chart.KINDS)),
                                                    needed(
                                                            "by",
                                                            "The field the records are grouped"
                                                                    + " by.",
                                                            FIELD_NAME),
                                                    key(
                                                            "step",
                                                            "How long a group is, for dates.",
                                                            new Shape.Word(Chart.STEPS)),
                                                    key(
                                                            "sum",
                                                            "The field that is added up; records"
                                                                    + " are counted when absent.",
                                                            FIELD_NAME))))));

    private ViewShapes() {}
}
