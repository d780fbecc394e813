package sandpiper.server.security;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.HexFormat;

/**
 * Makes and compares secrets of clients. They are 256 random bits, so a plain SHA-256 keeps them as
 * safe as a slow hash would, and costs nothing at each request.
 */
public final class Secrets {
    private static final SecureRandom RANDOM = new SecureRandom();

    private Secrets() {}

    /** A new secret; shown once and never stored. */
    public static String make() {
        var bytes = new byte[32];
        RANDOM.nextBytes(bytes);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    /** What is stored of a secret. */
    public static String hash(String secret) {
        try {
            var digest = MessageDigest.getInstance("SHA-256");
            return HexFormat.of().formatHex(digest.digest(secret.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Whether a secret is the one of a hash; takes the same time for any. */
    static boolean matches(String secret, String hash) {
        return MessageDigest.isEqual(
                hash(secret).getBytes(StandardCharsets.US_ASCII),
                hash.getBytes(StandardCharsets.US_ASCII));
    }
}
