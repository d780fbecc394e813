package sandpiper.engine.input;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Part;

/**
 * What a request says of a record, read as far as that can be done without looking at other
 * records.
 *
 * @param values what is said of each field that was named
 * @param parts what is said of each part that was named; the list replaces all items
 * @param faults what could not be read
 * @param changeable what may become different of a record that is there; the rest may be named as
 *     it is
 */
public record RecordInput(
        Map<Field, InputValue> values,
        Map<Part, List<Item>> parts,
        List<Fault> faults,
        FieldTree changeable) {
    /** The same, of which only some may become different. */
    public RecordInput changing(FieldTree only) {
        return new RecordInput(values, parts, faults, only);
    }

    /**
     * What a request says of one line item.
     *
     * @param line the item it changes, or {@code null} when it names none
     */
    record Item(@Nullable Long line, Map<Field, InputValue> values) {}
}
