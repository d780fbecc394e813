package sandpiper.engine.port;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.ObjectType;

/** Who changed which record, when, from what to what. */
public interface HistoryStorage {
    /**
     * One change of one record.
     *
     * @param version the record's version after it
     * @param via the way in: {@code console}, {@code berth-desk v1}
     * @param operation {@code created}, {@code changed}, {@code retired}, {@code restored} or
     *     {@code deleted}
     */
    record Entry(
            String object,
            UUID record,
            long version,
            Instant at,
            String by,
            String via,
            String operation,
            List<ValueChange> changes) {
        public Entry {
            changes = List.copyOf(changes);
        }
    }

    /**
     * One value that changed, as text.
     *
     * @param path the field, or {@code charges[2].quantity} with the line of an item
     * @param before {@code null} when it was empty
     * @param after {@code null} when it is now empty
     */
    record ValueChange(String path, @Nullable String before, @Nullable String after) {}

    void add(Transaction transaction, Entry entry);

    /** The history of a record, newest first. */
    List<Entry> of(Session session, ObjectType object, UUID record, int limit);

    /** The last changes of all records, newest first, without their values. */
    List<Entry> latest(Session session, int limit);

    /** Makes the history of an object findable under its new name. */
    void renameObject(Transaction transaction, String from, String to);
}
