package sandpiper.server.service;

import jakarta.servlet.http.HttpServletRequest;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.ProblemException;

/** The header by which a caller makes sure that a repeated request is done once. */
public final class IdempotencyKey {
    /** Its name. */
    public static final String HEADER = "Idempotency-Key";

    private static final int LONGEST = 255;

    private IdempotencyKey() {}

    /** The key of a request, or {@code null} when it has none. */
    public static @Nullable String of(HttpServletRequest request) {
        return checked(request.getHeader(HEADER));
    }

    /** A key that is right; {@code null} stays so. */
    public static @Nullable String checked(@Nullable String key) {
        if (key != null && (key.isBlank() || key.length() > LONGEST)) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "%s must have 1 to %d characters.".formatted(HEADER, LONGEST));
        }
        return key;
    }
}
