package sandpiper.server.service;

import jakarta.servlet.http.HttpServletRequest;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.Engine;
import sandpiper.engine.release.LiveRelease;
import sandpiper.logic.Quoted;
import sandpiper.model.release.ServiceType;
import sandpiper.server.problem.ProblemException;

/** Says in the address of a call which revision of the contract the caller has. */
public final class RevisionParameter {
    public static final String NAME = "revision";

    /** For callers who take answers as they are now. */
    public static final int NEWEST = 0;

    private static final Pattern NUMBER = Pattern.compile("[1-9]\\d{0,8}");

    private RevisionParameter() {}

    /**
     * Reads it from an address.
     *
     * @throws ProblemException when it is no number, or stands there twice
     */
    public static int of(HttpServletRequest request) {
        return read(new QueryParameters(request.getParameterMap()).text(NAME));
    }

    /**
     * Reads it.
     *
     * @param text {@code null} when it is not there
     * @throws ProblemException when it is no number
     */
    public static int read(@Nullable String text) {
        if (text == null) {
            return NEWEST;
        }
        if (!NUMBER.matcher(text).matches()) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "%s must be a number, as the contract names it, but is %s."
                            .formatted(NAME, Quoted.of(text)));
        }
        return Integer.parseInt(text);
    }

    /** A service as the caller's contract has it. */
    public static ServiceType narrow(
            Engine engine, LiveRelease live, ServiceType service, int revision) {
        return revision == NEWEST
                ? service
                : engine.releases().revisions().at(live, service, revision);
    }
}
