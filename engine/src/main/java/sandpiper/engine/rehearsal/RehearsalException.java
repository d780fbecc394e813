package sandpiper.engine.rehearsal;

/** A rehearsal cannot begin; the message says why. */
public final class RehearsalException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public RehearsalException(String message) {
        super(message);
    }
}
