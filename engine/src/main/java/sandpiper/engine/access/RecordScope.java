package sandpiper.engine.access;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Which records of an object a request can reach: those for which all conditions hold. Others are
 * not there for it.
 *
 * @param conditions FEEL, each answerable by the store
 */
public record RecordScope(List<String> conditions) {
    /** Every record. */
    public static final RecordScope ALL = new RecordScope(List.of());

    public RecordScope {
        conditions = List.copyOf(conditions);
    }

    /** The same with one more condition; {@code null} adds none. */
    public RecordScope and(@Nullable String condition) {
        if (condition == null) {
            return this;
        }
        var more = new ArrayList<>(conditions);
        more.add(condition);
        return new RecordScope(more);
    }

    /**
     * The records that meet one of several conditions; {@code null} among them stands for every
     * record.
     */
    public static RecordScope any(List<? extends @Nullable String> alternatives) {
        var texts = new ArrayList<String>();
        for (var text : alternatives) {
            if (text == null) {
                return ALL;
            }
            if (!texts.contains(text)) {
                texts.add(text);
            }
        }
        return texts.size() == 1
                ? new RecordScope(texts)
                : new RecordScope(
                        List.of(
                                String.join(
                                        " or ", texts.stream().map("(%s\n)"::formatted).toList())));
    }

    /** The records that are in both. */
    public RecordScope and(RecordScope other) {
        var more = new ArrayList<>(conditions);
        more.addAll(other.conditions);
        return new RecordScope(more);
    }
}
