package sandpiper.server.security;

import java.util.Map;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.DelegatingPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import sandpiper.server.problem.ProblemException;

/**
 * Passwords of any length under bcrypt, which takes 72 bytes: they are brought to a fixed length
 * with SHA-256 first. Those hashed without that before are still right. Hashing is slow on purpose,
 * so only a few are hashed at a time, and callers cannot keep all processors at it.
 */
final class LongPasswords implements PasswordEncoder {
    private static final String ID = "sha256-bcrypt";
    private static final Semaphore AT_ONCE =
            new Semaphore(Math.max(1, Runtime.getRuntime().availableProcessors() / 2), true);
    private static final long LONGEST_WAIT = 10;

    private final PasswordEncoder bcrypt = new BCryptPasswordEncoder();
    private final boolean shortened;

    private LongPasswords(boolean shortened) {
        this.shortened = shortened;
    }

    static PasswordEncoder encoder() {
        return new DelegatingPasswordEncoder(
                ID, Map.of(ID, new LongPasswords(true), "bcrypt", new LongPasswords(false)));
    }

    @Override
    public String encode(@Nullable CharSequence password) {
        return String.valueOf(slowly(() -> bcrypt.encode(shortened(String.valueOf(password)))));
    }

    @Override
    public boolean matches(@Nullable CharSequence password, @Nullable String hash) {
        var text = String.valueOf(password);
        return Boolean.TRUE.equals(slowly(() -> bcrypt.matches(shortened(text), hash)));
    }

    private String shortened(String password) {
        return shortened ? Secrets.hash(password).substring(0, 64) : password;
    }

    /** The work, when its turn comes in time. */
    private static <T> @Nullable T slowly(java.util.function.Supplier<@Nullable T> work) {
        try {
            if (!AT_ONCE.tryAcquire(LONGEST_WAIT, TimeUnit.SECONDS)) {
                throw new ProblemException(
                        HttpStatus.SERVICE_UNAVAILABLE,
                        "Too many people sign in just now; try again in a moment.");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new ProblemException(
                    HttpStatus.SERVICE_UNAVAILABLE, "The service is stopping.", e);
        }
        try {
            return work.get();
        } finally {
            AT_ONCE.release();
        }
    }
}
