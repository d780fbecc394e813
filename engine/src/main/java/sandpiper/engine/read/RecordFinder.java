package sandpiper.engine.read;

import java.util.Optional;
import java.util.UUID;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.Session;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ObjectType;

/** Finds a record by what stands in an address: its natural key or its public id. */
public final class RecordFinder {
    private static final int UUID_LENGTH = 36;

    private RecordFinder() {}

    /** The record, in use or retired, or nothing when there is none. */
    public static Optional<RecordStorage.Found> find(
            RecordStorage records, Session session, ObjectType object, String key) {
        var natural =
                KeyText.read(object, key).flatMap(values -> records.byKey(session, object, values));
        return natural.isPresent() ? natural : byId(records, session, object, key);
    }

    private static Optional<RecordStorage.Found> byId(
            RecordStorage records, Session session, ObjectType object, String key) {
        if (key.length() != UUID_LENGTH) {
            return Optional.empty();
        }
        try {
            return records.byId(session, object, UUID.fromString(key));
        } catch (IllegalArgumentException _) {
            return Optional.empty();
        }
    }
}
