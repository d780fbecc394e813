package sandpiper.e2e;

import java.nio.charset.StandardCharsets;
import java.util.Base64;

/** The {@code Authorization} of HTTP Basic (RFC 7617). */
final class BasicSignIn {
    private BasicSignIn() {}

    /** For {@code name:secret}. */
    static String as(String credentials) {
        return "Basic "
                + Base64.getEncoder().encodeToString(credentials.getBytes(StandardCharsets.UTF_8));
    }
}
