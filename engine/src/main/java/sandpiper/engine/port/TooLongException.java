package sandpiper.engine.port;

/** A read was stopped because it took too long; the caller should ask for less. */
public final class TooLongException extends StorageException {
    private static final long serialVersionUID = 1L;

    /** Takes what the storage says. */
    public TooLongException(Throwable cause) {
        super(
                "This takes too long and was stopped; ask for less, or by a field that is looked up"
                        + " quickly.",
                cause);
    }
}
