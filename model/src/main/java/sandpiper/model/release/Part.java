package sandpiper.model.release;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.definition.CheckDefinition;
import sandpiper.model.definition.LogicText;

/**
 * A list of line items owned by a record.
 *
 * @param index its place among the object's parts, from 0
 * @param describe what a line item is, or {@code null}
 * @param was its name in an earlier release, or {@code null}
 * @param readOnlyWhen a condition over the record under which no line item may be added, changed or
 *     removed, or {@code null}
 * @param readOnlySay what is said then, or {@code null}
 */
public record Part(
        int index,
        String name,
        String label,
        @Nullable String describe,
        Fields fields,
        @Nullable String was,
        List<CheckDefinition> checks,
        @Nullable LogicText readOnlyWhen,
        @Nullable LogicText readOnlySay) {
    public Part {
        checks = List.copyOf(checks);
    }

    /** The same part with other fields. */
    public Part with(Fields otherFields) {
        return new Part(
                index, name, label, describe, otherFields, was, checks, readOnlyWhen, readOnlySay);
    }
}
