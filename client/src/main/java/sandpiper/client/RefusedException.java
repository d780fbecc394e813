package sandpiper.client;

import java.util.List;

/** The server did not do what was asked; says why in its own words. */
public final class RefusedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final int status;
    private final transient List<String> errors;

    /** {@code status} is that of HTTP, or 0 when nobody answered; {@code errors} may be empty. */
    public RefusedException(int status, String detail, List<String> errors) {
        super(detail, null, false, false);
        this.status = status;
        this.errors = List.copyOf(errors);
    }

    public int status() {
        return status;
    }

    /** Each thing that is wrong, a sentence each. */
    public List<String> errors() {
        return errors;
    }
}
