package sandpiper.server.problem;

import java.util.List;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.Problem.Wrong;

/** Ends a request with a problem as its answer. */
public final class ProblemException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final HttpStatus status;
    private final transient List<Wrong> errors;

    /** With a sentence that says what to do. */
    public ProblemException(HttpStatus status, String detail) {
        this(status, detail, List.of());
    }

    /** With what is wrong in detail. */
    public ProblemException(HttpStatus status, String detail, List<Wrong> errors) {
        super(detail, null, false, false);
        this.status = status;
        this.errors = List.copyOf(errors);
    }

    /** With a cause, for the log. */
    public ProblemException(HttpStatus status, String detail, Throwable cause) {
        super(detail, cause);
        this.status = status;
        this.errors = List.of();
    }

    /** What is answered. */
    public Problem problem() {
        return Problem.of(status, String.valueOf(getMessage()), errors);
    }
}
