package sandpiper.engine.port;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Draft files and releases. */
public interface DefinitionStorage {
    /** Draft texts by path, in the order of paths. */
    Map<String, String> draft(Session session);

    void putDraftFile(Transaction transaction, String path, String text, Instant at, String by);

    void removeDraftFile(Transaction transaction, String path);

    /** A numbered state of the definitions. */
    record StoredRelease(int number, Instant at, String by, String note, List<String> changes) {}

    /** All releases, newest first, without their files. */
    List<StoredRelease> releases(Session session);

    /** The newest release's number, or nothing before the first. */
    Optional<Integer> newestRelease(Session session);

    /** The files of a release by path. */
    Map<String, String> filesOf(Session session, int release);

    void putRelease(Transaction transaction, StoredRelease release, Map<String, String> files);
}
