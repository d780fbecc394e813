package sandpiper.engine.service;

/** Something is not done for whoever asks; its message says why. */
public final class DeniedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final Reason reason;

    /** Why something is not done. */
    public enum Reason {
        /** There is no such thing, or none for the one who asks. */
        UNKNOWN,
        /** It is there, and not granted. */
        NOT_GRANTED,
        /** It is granted, and a service does not offer it. */
        NOT_OFFERED,
        /** It was there, and was ended. */
        ENDED,
        /** What was sent with it has no place there. */
        MEANINGLESS
    }

    public DeniedException(Reason reason, String message) {
        super(message);
        this.reason = reason;
    }

    public Reason reason() {
        return reason;
    }
}
