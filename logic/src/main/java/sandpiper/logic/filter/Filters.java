package sandpiper.logic.filter;

import java.time.Clock;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import sandpiper.logic.type.RecordType;

/**
 * Filters that were asked for before, so that a program that asks the same again pays only for the
 * answer. Safe to share between threads.
 */
public final class Filters {
    /** Filters kept; callers write what they like, so there must be an end. */
    private static final int MOST = 1_000;

    private final Map<Key, PreparedCondition> kept = new ConcurrentHashMap<>();

    private record Key(String place, String text) {}

    /**
     * Checks a filter as {@link ConditionChecker#check} does.
     *
     * @param place tells record types apart: the same text in one place means the same
     */
    public Checked check(String place, String text, Supplier<RecordType> record, Clock clock) {
        var key = new Key(place, text);
        var known = kept.get(key);
        if (known == null) {
            known = ConditionChecker.prepare(text, record.get());
            if (known.isAccepted()) {
                if (kept.size() >= MOST) {
                    kept.clear();
                }
                kept.put(key, known);
            }
        }
        return known.bind(clock);
    }
}
