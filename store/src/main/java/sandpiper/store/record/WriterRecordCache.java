package sandpiper.store.record;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.RecordStorage.Found;
import sandpiper.engine.record.StoredRecord;
import sandpiper.model.release.ObjectType;
import sandpiper.store.sql.SqlSession;

/**
 * Records the writer loaded of late. Most writes refer to the same few others, and nobody else can
 * change them, so they need not be read again. Where many write at a time each transaction has one
 * of its own: what it has read stays as it is until it ends, and no longer.
 *
 * <p>A record that is changed is forgotten, and is not kept again before the transaction ends: it
 * may yet be undone. Sessions that read see an earlier state and get nothing from here.
 */
final class WriterRecordCache {
    /** Records kept; of usual size they take some ten megabytes. */
    private static final int MOST = 4_000;

    /** Line items of a record that is still worth keeping. */
    private static final int MOST_ITEMS = 50;

    private final Map<Place, StoredRecord> records = new Bounded<>();
    private final Map<Key, Long> numbers = new Bounded<>();
    private final Set<Place> changed = new HashSet<>();
    private @Nullable SqlSession current;

    private record Place(String object, long number) {}

    private record Key(String object, List<?> values) {}

    /** Lets the entry go that was asked for least recently. */
    private static final class Bounded<K, V> extends LinkedHashMap<K, V> {
        private static final long serialVersionUID = 1L;

        Bounded() {
            super(64, 0.75f, true);
        }

        @Override
        protected boolean removeEldestEntry(Map.Entry<K, V> eldest) {
            return size() > MOST;
        }
    }

    /** The record of a number, or {@code null} when it has to be read. */
    @Nullable StoredRecord record(ObjectType object, long number) {
        return records.get(new Place(object.name(), number));
    }

    /** The record of a natural key, or {@code null} when it has to be looked for. */
    @Nullable Found byKey(ObjectType object, List<Object> key) {
        var number = numbers.get(new Key(object.name(), key));
        if (number == null) {
            return null;
        }
        var record = records.get(new Place(object.name(), number));
        return record != null && keyOf(object, record).equals(key)
                ? new Found(number, record.retired())
                : null;
    }

    /** Keeps a record that was read. */
    void keep(SqlSession session, ObjectType object, StoredRecord record) {
        if (record.items().stream().anyMatch(WriterRecordCache::isLong)) {
            return;
        }
        var place = new Place(object.name(), record.number());
        if (session != current || !changed.contains(place)) {
            records.put(place, record);
            if (!object.key().isEmpty()) {
                numbers.put(new Key(object.name(), keyOf(object, record)), record.number());
            }
        }
    }

    private static boolean isLong(List<?> items) {
        return items.size() > MOST_ITEMS;
    }

    private static List<@Nullable Object> keyOf(ObjectType object, StoredRecord record) {
        var key = new ArrayList<@Nullable Object>();
        object.keyFields().forEach(field -> key.add(record.values()[field.index()]));
        return key;
    }

    /** Forgets a record that is being changed. */
    void forget(SqlSession session, ObjectType object, long number) {
        if (session != current) {
            current = session;
            changed.clear();
        }
        var place = new Place(object.name(), number);
        changed.add(place);
        records.remove(place);
    }
}
