package sandpiper.model.change;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Part;

/**
 * A part before and after.
 *
 * @param before {@code null} when the part is added
 * @param after {@code null} when the part is removed
 */
public record PartChange(@Nullable Part before, @Nullable Part after, List<FieldChange> fields) {
    public PartChange {
        fields = List.copyOf(fields);
    }

    static PartChange removed(Part before) {
        return new PartChange(before, null, FieldChange.removed(before.fields()));
    }
}
