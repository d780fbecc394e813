package sandpiper.engine.port;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Draft files, releases, and the revisions of contracts. */
public interface DefinitionStorage {
    /** Draft texts by path, in the order of paths. */
    Map<String, String> draft(Session session);

    /**
     * A draft file as it is or was.
     *
     * @param by who left it so
     */
    record DraftFileState(String path, String text, Instant at, String by) {}

    /** One draft file, or nothing when there is none at the path. */
    Optional<DraftFileState> draftFile(Session session, String path);

    /** Keeps a state of a file to come back to; only the last thousand of all are kept. */
    void keepDraftVersion(Transaction transaction, DraftFileState file, Instant at);

    /** When a state of a file was kept last, or nothing when none was. */
    Optional<Instant> lastDraftVersion(Session session, String path);

    /**
     * States that were kept, newest first.
     *
     * @param path of the file, or {@code null} for all of them
     */
    List<DraftFileState> draftVersions(Session session, @Nullable String path, int limit);

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

    /**
     * What answers of a service could hold from a release on.
     *
     * @param number of the release
     * @param places as {@link sandpiper.model.contract.AnsweredShape} has them
     * @param endedAt when it was ended by hand, or {@code null} while it is answered
     * @param endedBy who ended it, or {@code null}
     */
    record StoredRevision(
            String service,
            int version,
            int number,
            List<String> places,
            @Nullable Instant endedAt,
            @Nullable String endedBy) {}

    /** All revisions of all services, each service's oldest first. */
    List<StoredRevision> revisions(Session session);

    /** Keeps a revision, in the place of what was known of it. */
    void putRevision(Transaction transaction, StoredRevision revision);

    /**
     * From where a package came into the draft.
     *
     * @param content what tells its files from any others
     * @param manifest what was said with it, as text
     * @param signer the fingerprint of the key it was signed with, or {@code null}
     */
    record StoredOrigin(
            String packageName,
            String version,
            String content,
            String manifest,
            @Nullable String signer,
            Instant at,
            String by) {}

    /** From where packages came, newest first. */
    List<StoredOrigin> origins(Session session);

    /** Keeps from where a package came, in the place of what was known of the same content. */
    void putOrigin(Transaction transaction, StoredOrigin origin);
}
