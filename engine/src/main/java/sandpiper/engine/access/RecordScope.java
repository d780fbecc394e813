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
}
