package sandpiper.server.webhook;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/**
 * Signs messages as the Standard Webhooks specification has it: HMAC-SHA256 over id, time and body.
 */
final class Signature {
    static final String ID = "webhook-id";
    static final String TIMESTAMP = "webhook-timestamp";
    static final String SIGNATURE = "webhook-signature";

    private static final String PREFIX = "whsec_";
    private static final int KEY_BYTES = 32;
    private static final SecureRandom RANDOM = new SecureRandom();

    private Signature() {}

    /** A new secret in the form in which receivers take it. */
    static String newSecret() {
        var key = new byte[KEY_BYTES];
        RANDOM.nextBytes(key);
        return PREFIX + Base64.getEncoder().encodeToString(key);
    }

    /** The signatures by each of the secrets, the newest first. */
    static String of(List<String> secrets, String id, Instant at, String body) {
        var content = "%s.%d.%s".formatted(id, at.getEpochSecond(), body);
        return String.join(" ", secrets.stream().map(secret -> sign(secret, content)).toList());
    }

    private static String sign(String secret, String content) {
        try {
            var key = Base64.getDecoder().decode(secret.substring(PREFIX.length()));
            var mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(key, "HmacSHA256"));
            return "v1,"
                    + Base64.getEncoder()
                            .encodeToString(mac.doFinal(content.getBytes(StandardCharsets.UTF_8)));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("Every Java has HmacSHA256", e);
        }
    }
}
