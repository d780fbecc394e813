package sandpiper.model.layout;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The form of a record. Fields that stand in no section, and are not left out, come after all
 * others.
 *
 * @param wide fields that take a whole line
 * @param leftOut fields that the form does not show
 * @param side lists of related records beside the form, or {@code null} for all there are
 * @param details by reference, the fields of the record referred to that are shown with it
 */
public record FormLayout(
        List<Section> sections,
        Set<String> wide,
        Set<String> leftOut,
        @Nullable List<SideList> side,
        Map<String, List<String>> details) {
    public static final FormLayout NONE =
            new FormLayout(List.of(), Set.of(), Set.of(), null, Map.of());

    public FormLayout {
        sections = List.copyOf(sections);
        wide = Set.copyOf(wide);
        leftOut = Set.copyOf(leftOut);
        side = side == null ? null : List.copyOf(side);
        details = Map.copyOf(details);
    }

    /**
     * Fields that stand together.
     *
     * @param heading or {@code null} for none
     */
    public record Section(@Nullable String heading, List<String> fields) {
        public Section {
            fields = List.copyOf(fields);
        }
    }

    /**
     * Records that refer to the one in the form.
     *
     * @param object whose records they are
     * @param field the reference by which they refer to it
     * @param columns the fields that are shown; empty for the usual ones
     */
    public record SideList(String object, String field, List<String> columns) {
        public SideList {
            columns = List.copyOf(columns);
        }
    }
}
