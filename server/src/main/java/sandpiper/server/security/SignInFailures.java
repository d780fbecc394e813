package sandpiper.server.security;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.time.Instant;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.ProblemException;

/** Locks a name for a while after wrong passwords, so that nobody can try many. */
final class SignInFailures {
    private static final int MOST = 5;
    private static final Duration LOCKED = Duration.ofMinutes(15);

    /** Names nobody has could be tried without end. */
    private static final int MOST_NAMES = 10_000;

    private final Cache<String, Failed> failed =
            Caffeine.newBuilder().maximumSize(MOST_NAMES).expireAfterWrite(LOCKED).build();

    private record Failed(int times, Instant last) {}

    /**
     * Lets a name go on that is not locked.
     *
     * @throws ProblemException when it is
     */
    void check(String name, Instant now) {
        var before = failed.getIfPresent(name);
        if (before == null || before.times() < MOST) {
            return;
        }
        var open = before.last().plus(LOCKED);
        if (now.isBefore(open)) {
            throw new ProblemException(
                    HttpStatus.TOO_MANY_REQUESTS,
                    "There were %d wrong passwords for this name. Try again in %d minutes."
                            .formatted(MOST, Duration.between(now, open).toMinutes() + 1));
        }
        failed.invalidate(name);
    }

    void add(String name, Instant now) {
        failed.asMap()
                .merge(
                        name,
                        new Failed(1, now),
                        (before, _) -> new Failed(before.times() + 1, now));
    }

    void forget(String name) {
        failed.invalidate(name);
    }
}
