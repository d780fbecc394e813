package sandpiper.model.definition;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A way to look at a list that comes with a package; everybody has it who sees the records.
 *
 * @param filter a condition in FEEL, or {@code null}
 * @param sort a field, with a minus sign for falling; {@code null} for the usual order
 * @param columns fields in their order, with points through references; empty for the usual ones
 * @param chart what is drawn of the records, or {@code null} for nothing
 */
public record DeliveredView(
        String name,
        String packageName,
        String object,
        @Nullable String filter,
        @Nullable String sort,
        List<String> columns,
        @Nullable Chart chart) {
    public DeliveredView {
        columns = List.copyOf(columns);
    }

    /**
     * A drawing of records.
     *
     * @param kind one of {@link #KINDS}
     * @param by the field the records are grouped by
     * @param step one of {@link #STEPS} for dates and moments, {@code null} for other fields
     * @param sum the field that is added up, or {@code null} to count
     */
    public record Chart(String kind, String by, @Nullable String step, @Nullable String sum) {
        /** How a chart is drawn. */
        public static final List<String> KINDS = List.of("bar", "line", "ring");

        /** How long a group is. */
        public static final List<String> STEPS = List.of("day", "week", "month", "quarter", "year");
    }
}
