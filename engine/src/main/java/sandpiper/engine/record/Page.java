package sandpiper.engine.record;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One page of a query.
 *
 * @param next the place to go on from, or {@code null} at the end
 * @param total how many records match in all, or {@code null} when nobody asked
 */
public record Page(
        List<RecordView> records, @Nullable List<@Nullable Object> next, @Nullable Long total) {
    public Page {
        records = List.copyOf(records);
    }
}
