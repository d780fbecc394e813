package sandpiper.engine.record;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * How somebody looks at the records of an object, kept by name.
 *
 * @param owner the user whose it is, or {@code null} when it is shared
 * @param filter a condition in FEEL, or {@code null}
 * @param search words to look for, or {@code null}
 * @param sort a field, with a minus sign for falling; {@code null} for the usual order
 * @param retired what becomes of retired records, or {@code null} for the usual
 * @param columns fields in their order; empty for the usual ones
 * @param chart what is drawn of the records, or {@code null} for nothing
 */
public record NamedView(
        String object,
        @Nullable String owner,
        String name,
        @Nullable String filter,
        @Nullable String search,
        @Nullable String sort,
        @Nullable String retired,
        List<String> columns,
        @Nullable Chart chart) {
    public NamedView {
        columns = List.copyOf(columns);
    }

    /**
     * A drawing of records.
     *
     * @param kind how it is drawn
     * @param by the field the records are grouped by
     * @param step how long a group is, for dates and moments; {@code null} for other fields
     * @param sum the field that is added up, or {@code null} to count
     */
    public record Chart(Kind kind, String by, Figures.@Nullable Step step, @Nullable String sum) {
        /** How a chart is drawn. */
        public enum Kind {
            BAR,
            LINE,
            RING
        }
    }
}
