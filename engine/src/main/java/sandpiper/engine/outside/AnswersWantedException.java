package sandpiper.engine.outside;

import java.util.List;

/** Leaves off work that needs answers from outside; it is begun anew when they are there. */
public final class AnswersWantedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final transient List<Ask> asks;

    AnswersWantedException(List<Ask> asks) {
        // Thrown as a matter of course, so without the cost of a stack trace.
        super("Answers from outside are wanted", null, false, false);
        this.asks = List.copyOf(asks);
    }

    List<Ask> asks() {
        return asks;
    }
}
