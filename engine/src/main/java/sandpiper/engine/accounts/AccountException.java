package sandpiper.engine.accounts;

/** A change of accounts that is not done; its message says why, to whoever asked. */
public final class AccountException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final Reason reason;

    /** Why something is not done. */
    public enum Reason {
        /** There is nobody of that name. */
        MISSING,
        /** Who there is already, or may do what already, stands in the way. */
        CONFLICT,
        /** What is asked for is not right in itself. */
        INVALID
    }

    AccountException(Reason reason, String message) {
        super(message);
        this.reason = reason;
    }

    public Reason reason() {
        return reason;
    }
}
