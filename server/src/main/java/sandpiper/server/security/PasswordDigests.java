package sandpiper.server.security;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.Base64;

/**
 * Digests of passwords as the UsernameToken profile 1.1 of WS-Security has them (section 3.1), each
 * good once and for a short time.
 */
final class PasswordDigests {
    /** How old a digest may be; the profile recommends five minutes. */
    static final Duration LIFE = Duration.ofMinutes(5);

    /** How far the caller's clock may run ahead. */
    static final Duration AHEAD = Duration.ofMinutes(1);

    private static final long MOST_NONCES = 200_000;

    private final Cache<String, Boolean> seen =
            Caffeine.newBuilder()
                    .maximumSize(MOST_NONCES)
                    .expireAfterWrite(LIFE.plus(AHEAD).plus(AHEAD))
                    .build();

    /**
     * What a caller proves to know a password with.
     *
     * @param nonce in base 64
     * @param created the moment it was made, as in {@code 2026-11-23T08:00:00Z}
     * @param digest in base 64
     */
    record Proof(String nonce, String created, String digest) {}

    /** Whether a proof is in time; one with a moment that cannot be read is not. */
    static boolean isInTime(Proof proof, Instant now) {
        try {
            var made = Instant.parse(proof.created());
            return !made.isBefore(now.minus(LIFE)) && !made.isAfter(now.plus(AHEAD));
        } catch (DateTimeParseException _) {
            return false;
        }
    }

    /** Whether a proof was made with a password. */
    static boolean isRight(Proof proof, String password) {
        try {
            // The profile says SHA-1 and nothing else.
            var sha = MessageDigest.getInstance("SHA-1");
            sha.update(Base64.getDecoder().decode(proof.nonce()));
            sha.update(proof.created().getBytes(StandardCharsets.UTF_8));
            sha.update(password.getBytes(StandardCharsets.UTF_8));
            return MessageDigest.isEqual(sha.digest(), Base64.getDecoder().decode(proof.digest()));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        } catch (IllegalArgumentException _) {
            return false;
        }
    }

    /** Whether a right proof comes for the first time; from then on it is used up. */
    boolean isFirst(String client, Proof proof) {
        return seen.asMap().putIfAbsent(client + ' ' + proof.nonce(), Boolean.TRUE) == null;
    }
}
