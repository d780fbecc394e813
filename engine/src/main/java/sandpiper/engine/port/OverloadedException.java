package sandpiper.engine.port;

/** More is asked for than can be done just now; trying again in a moment is right. */
public final class OverloadedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    /** Says why in words for callers. */
    public OverloadedException(String message) {
        super(message);
    }

    public OverloadedException(int waiting) {
        super("%,d changes are waiting to be written; try again in a second.".formatted(waiting));
    }
}
