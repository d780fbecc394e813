package sandpiper.model.release;

import java.util.ArrayList;
import java.util.List;

/**
 * What sets a rule or a check off.
 *
 * @param create when a record is created
 * @param change when anything of it changes
 * @param retire when it is retired
 * @param fields when one of these fields or parts changes; a new record's filled fields count
 */
public record Trigger(boolean create, boolean change, boolean retire, List<String> fields) {
    /** Every save. */
    public static final Trigger ALWAYS = new Trigger(true, true, false, List.of());

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
