package sandpiper.engine.port;

import java.util.Optional;
import sandpiper.model.type.FileBytes;

/**
 * What is in the files of records, each once however many records have it. Bytes come in with the
 * records that have them.
 */
public interface FileStorage {
    /** The bytes of a digest, or nothing when none are kept. */
    Optional<FileBytes> bytes(Session session, String sha256);

    /** Whether bytes are kept that no record has any more, nor anything that is kept aside. */
    boolean hasUnused(Session session);

    /** Lets go of bytes that nothing has; gives how many files they were of. */
    int removeUnused(Transaction transaction);

    /** How many files are kept, and how many bytes they have. */
    Total total(Session session);

    /** A number of files, and how many bytes they have together. */
    record Total(long files, long bytes) {}
}
