package sandpiper.engine.port;

/**
 * Others wrote at the same time what cannot be written beside this. Nothing of it is kept; done
 * again from its beginning it goes through.
 */
public final class ConflictException extends StorageException {
    private static final long serialVersionUID = 1L;

    /** Takes what the storage says. */
    public ConflictException(String details, Throwable cause) {
        super(
                "Others change the same at this moment; nothing of this was done. Try again in a"
                        + " second.",
                details,
                cause);
    }
}
