package sandpiper.model.release;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A list of line items owned by a record.
 *
 * @param index its place among the object's parts, from 0
 * @param describe what a line item is, or {@code null}
 * @param was its name in an earlier release, or {@code null}
 */
public record Part(
        int index,
        String name,
        String label,
        @Nullable String describe,
        Fields fields,
        @Nullable String was,
        List<CheckDefinition> checks) {
    public Part {
        checks = List.copyOf(checks);
    }

    /** The same part with other fields. */
    public Part with(Fields otherFields) {
        return new Part(index, name, label, describe, otherFields, was, checks);
    }
}
