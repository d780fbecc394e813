package sandpiper.engine.command;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.trace.TraceStep;

/**
 * What a record would be if it were stored now. Nothing is kept.
 *
 * @param values in plain form, line items in lists
 * @param fields by path: {@code approvedBy}, {@code charges.quantity}
 * @param faults what would keep it from being stored
 * @param warnings what would be said
 * @param steps how it came to that; empty when nobody asked
 */
public record Preview(
        Map<String, @Nullable Object> values,
        Map<String, FieldFlags> fields,
        List<Fault> faults,
        List<Fault> warnings,
        List<TraceStep> steps) {
    /** How a form shows a field. */
    public record FieldFlags(boolean required, boolean readOnly, boolean hidden) {}
}
