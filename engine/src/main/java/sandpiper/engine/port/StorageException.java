package sandpiper.engine.port;

/**
 * Storage does not work: the disk is full, the file is read-only or damaged. Not for wrong input.
 */
public class StorageException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    /** Says in a sentence what cannot be done and what to look at. */
    public StorageException(String message, Throwable cause) {
        super(message, cause);
    }
}
