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
import java.util.HexFormat;

/**
 * Digests of passwords as the UsernameToken profile 1.1 of WS-Security has them (section 3.1), each
 * good once and for a short time.
 */
final class PasswordDigests {
    /** How old a digest may be; the profile recommends five minutes. */
    static final Duration LIFE = Duration.ofMinutes(5);

    /** How far the caller's clock may run ahead. */
    static final Duration AHEAD = Duration.ofMinutes(1);

    /** Bytes; fewer come twice by chance. */
    private static final int SHORTEST_NONCE = 8;

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

    /**
     * What is still to be expected of a clock that was not looked at before the service started.
     */
    private final Instant start;

    /** From a moment on; what was seen before it, nobody knows. */
    PasswordDigests(Instant start) {
        this.start = start;
    }

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
            if (nonce(proof).length < SHORTEST_NONCE) {
                return false;
            }
            // The profile says SHA-1 and nothing else.
            var sha = MessageDigest.getInstance("SHA-1");
            sha.update(nonce(proof));
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
        // What was used before a restart is not known any more.
        if (Instant.parse(proof.created()).isBefore(start) || seen.estimatedSize() >= MOST_NONCES) {
            return false;
        }
        return seen.asMap()
                        .putIfAbsent(
                                client + ' ' + HexFormat.of().formatHex(nonce(proof)), Boolean.TRUE)
                == null;
    }

    /** The bytes, however they are written: base 64 has many ways. */
    private static byte[] nonce(Proof proof) {
        return Base64.getDecoder().decode(proof.nonce());
    }
}
