package sandpiper.model.definition;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What sets a rule or a check off.
 *
 * @param create when a record is created
 * @param change when anything of it changes
 * @param retire when it is retired
 * @param fields when one of these fields or parts changes; a new record's filled fields count
 * @param text as it stands in the file; {@code null} when it is a list there, or not there
 */
public record Trigger(
        boolean create,
        boolean change,
        boolean retire,
        List<String> fields,
        @Nullable LogicText text) {
    /** Every save. */
    public static final Trigger ALWAYS = new Trigger(true, true, false, List.of(), null);

    public Trigger {
        fields = List.copyOf(fields);
    }

    /** As it is written: {@code create, change of nights}. */
    public String written() {
        var words = new ArrayList<String>();
        if (create) {
            words.add("create");
        }
        if (change) {
            words.add("change");
        }
        if (retire) {
            words.add("retire");
        }
        if (!fields.isEmpty()) {
            words.add("change of " + String.join(", ", fields));
        }
        return String.join(" or ", words);
    }
}
