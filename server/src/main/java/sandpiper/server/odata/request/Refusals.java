package sandpiper.server.odata.request;

import java.util.Collection;
import org.springframework.http.HttpStatus;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.server.problem.ProblemException;

/** Requests that cannot be answered, with what to do instead. */
public final class Refusals {
    private Refusals() {}

    public static ProblemException bad(String message) {
        return new ProblemException(HttpStatus.BAD_REQUEST, message);
    }

    public static ProblemException notOffered(String message) {
        return new ProblemException(HttpStatus.NOT_IMPLEMENTED, message);
    }

    public static ProblemException unknown(String type, String name, Collection<String> known) {
        return bad(
                "%s has no property %s.%s"
                        .formatted(
                                type,
                                Quoted.of(name),
                                Nearest.to(name, known)
                                        .map(near -> " Did you mean %s?".formatted(near))
                                        .orElse("")));
    }
}
