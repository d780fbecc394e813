package sandpiper.engine.work;

import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Records of a unit of work that were changed, or may have been, in the order in which they were.
 */
public final class TouchedRecords {
    private final Set<RecordState> all = new LinkedHashSet<>();
    private final Map<String, Set<RecordState>> byObject = new HashMap<>();

    public Set<RecordState> all() {
        return all;
    }

    /** All there are now; those that are touched meanwhile are not among them. */
    public List<RecordState> now() {
        return List.copyOf(all);
    }

    /** Those of one object. */
    public Collection<RecordState> of(String object) {
        return byObject.getOrDefault(object, Set.of());
    }

    void add(RecordState record) {
        if (all.add(record)) {
            byObject.computeIfAbsent(record.object().name(), _ -> new LinkedHashSet<>())
                    .add(record);
        }
    }

    /** Leaves a record out that is deleted, so that it is not stored. */
    public void remove(RecordState record) {
        all.remove(record);
        byObject.getOrDefault(record.object().name(), new LinkedHashSet<>()).remove(record);
    }
}
