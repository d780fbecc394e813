package sandpiper.engine.port;

/**
 * Storage does not work: the disk is full, the file is read-only or damaged. Not for wrong input.
 */
public class StorageException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final String words;

    /** Says in a sentence what cannot be done and what to look at. */
    public StorageException(String words, Throwable cause) {
        super(words, cause);
        this.words = words;
    }

    /** The same with what the database says of itself, for the log. */
    public StorageException(String words, String details, Throwable cause) {
        super("%s (%s)".formatted(words, details), cause);
        this.words = words;
    }

    /**
     * The connection was lost while something was made durable: it may be stored, and it may not.
     */
    public static final class Uncertain extends StorageException {
        private static final long serialVersionUID = 1L;

        /** Takes what the storage says. */
        public Uncertain(String details, Throwable cause) {
            super(
                    "The connection to the database was lost while this was stored, so it may be"
                            + " done: look before you send it again, or send it with the same"
                            + " Idempotency-Key.",
                    details,
                    cause);
        }
    }

    /** The sentence alone, for people. */
    public String words() {
        return words;
    }
}
