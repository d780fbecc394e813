package sandpiper.model.layout;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The list of an object's records.
 *
 * @param columns fields in their order; empty for the usual ones
 * @param sort the field it is sorted by at first, with a minus sign for falling; {@code null} for
 *     the newest first
 */
public record ListLayout(List<String> columns, @Nullable String sort) {
    public static final ListLayout NONE = new ListLayout(List.of(), null);

    public ListLayout {
        columns = List.copyOf(columns);
    }
}
