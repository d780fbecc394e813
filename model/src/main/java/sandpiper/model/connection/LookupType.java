package sandpiper.model.connection;

import java.time.Duration;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Codes with labels that an outside service knows, for a pick list.
 *
 * @param operation gives the list
 * @param search its parameter that takes what somebody types; {@code null} when it always gives
 *     everything
 * @param single gives one entry by its code, or {@code null} to look it up in the list
 * @param items where the list is in the answer; empty for the answer itself
 * @param key where the code is in an entry
 * @param label where the label is in an entry
 * @param keep how long answers are kept
 * @param accepts whether a code is taken unseen while the service does not answer
 */
public record LookupType(
        String connection,
        String name,
        OutsideOperation operation,
        @Nullable String search,
        @Nullable OutsideOperation single,
        List<String> items,
        List<String> key,
        List<String> label,
        Duration keep,
        boolean accepts) {
    public LookupType {
        items = List.copyOf(items);
        key = List.copyOf(key);
        label = List.copyOf(label);
    }

    /** As it is written in a field: {@code tide-table.currencies}. */
    public String written() {
        return connection + "." + name;
    }
}
