package sandpiper.engine.port;

/**
 * Nothing of a transaction is kept, and done again from its beginning it may go through: others
 * wrote at the same time what cannot be written beside it, or the connection was lost before the
 * end.
 */
public final class ConflictException extends StorageException {
    private static final long serialVersionUID = 1L;

    private final boolean lost;

    private ConflictException(String words, String details, boolean lost, Throwable cause) {
        super(words, details, cause);
        this.lost = lost;
    }

    /** Others were first. */
    public static ConflictException conflicting(String details, Throwable cause) {
        return new ConflictException(
                "Others change the same at this moment; nothing of this was done. Try again in a"
                        + " second.",
                details,
                false,
                cause);
    }

    /** The connection was lost before anything was kept. */
    public static ConflictException lost(String details, Throwable cause) {
        return new ConflictException(
                "The database does not answer; nothing of this was done. The service goes on as"
                        + " soon as it does: try again in a second.",
                details,
                true,
                cause);
    }

    /** Whether the connection was lost. */
    public boolean isLost() {
        return lost;
    }
}
