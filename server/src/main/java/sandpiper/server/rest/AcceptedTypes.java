package sandpiper.server.rest;

import jakarta.servlet.http.HttpServletRequest;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.InvalidMediaTypeException;
import org.springframework.http.MediaType;
import sandpiper.server.problem.ProblemException;

/** Whether somebody takes JSON for an answer (RFC 9110 §12.5.1). */
final class AcceptedTypes {
    private AcceptedTypes() {}

    /** Refuses a request whose {@code Accept} leaves no room for JSON. */
    static void requireJson(HttpServletRequest request) {
        var accept = request.getHeader(HttpHeaders.ACCEPT);
        if (!takesJson(accept)) {
            throw new ProblemException(
                    HttpStatus.NOT_ACCEPTABLE,
                    "Only JSON can be answered; accept application/json.");
        }
    }

    /** What cannot be understood is no reason to refuse. */
    static boolean takesJson(@Nullable String accept) {
        if (accept == null
                || accept.isBlank()
                || accept.equals(MediaType.APPLICATION_JSON_VALUE)
                || accept.equals(MediaType.ALL_VALUE)) {
            return true;
        }
        try {
            // The most exact range that fits says how much JSON is wanted.
            return MediaType.parseMediaTypes(accept).stream()
                    .filter(range -> range.includes(MediaType.APPLICATION_JSON))
                    .max((a, b) -> Integer.compare(exactness(a), exactness(b)))
                    .map(range -> range.getQualityValue() > 0)
                    .orElse(false);
        } catch (InvalidMediaTypeException _) {
            return true;
        }
    }

    private static int exactness(MediaType range) {
        return range.isWildcardType() ? 0 : range.isWildcardSubtype() ? 1 : 2;
    }
}
