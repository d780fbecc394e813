package sandpiper.server.security;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.time.Instant;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.access.CountedTries;
import sandpiper.engine.access.CountedTries.Tries;
import sandpiper.server.problem.ProblemException;

/**
 * Slows down whoever tries passwords: so many tries of a name from one address, of all names from
 * one address, and, far more, of a name from everywhere. Whoever tries somebody else's name from
 * afar does not lock that person out. A try counts before it is looked at, so that many at once are
 * many. A copy of the service shares them with it, and all processes that work on one database do,
 * or whoever tries would have more doors. Safe for many threads.
 */
public final class SignInFailures {
    private static final int OF_NAME_HERE = 5;
    private static final int OF_ADDRESS = 50;
    private static final int OF_NAME = 200;
    private static final Duration LOCKED = Duration.ofMinutes(15);

    /** Names nobody has could be tried without end. Keys are hashes, so each is small. */
    private static final int MOST = 20_000;

    private final CountedTries tries;

    /** Counts where others count along. */
    SignInFailures(CountedTries tries) {
        this.tries = tries;
    }

    /** Counts for this process alone. */
    SignInFailures() {
        Cache<String, Tries> cache =
                Caffeine.newBuilder().maximumSize(MOST).expireAfterWrite(LOCKED).build();
        this.tries =
                (key, change) -> cache.asMap().compute(key, (_, before) -> change.apply(before));
    }

    /**
     * Counts a try of a name.
     *
     * @param address from which it comes
     * @throws ProblemException 429 when there were too many
     */
    void begin(String name, String address, Instant now) {
        count(here(name, address), OF_NAME_HERE, now);
        count("a " + address, OF_ADDRESS, now);
        count("n " + Secrets.hash(name), OF_NAME, now);
    }

    private void count(String key, int most, Instant now) {
        var after = Objects.requireNonNull(tries.change(key, before -> counted(before, most, now)));
        if (after.count() > most) {
            var open = after.last().plus(LOCKED);
            throw new ProblemException(
                    HttpStatus.TOO_MANY_REQUESTS,
                    "There were too many wrong passwords. Try again in %d minutes."
                            .formatted(Duration.between(now, open).toMinutes() + 1));
        }
    }

    private static Tries counted(@Nullable Tries before, int most, Instant now) {
        if (before == null || before.last().plus(LOCKED).isBefore(now)) {
            return new Tries(1, now);
        }
        if (before.count() > most) {
            return before;
        }
        return new Tries(before.count() + 1, before.count() < most ? now : before.last());
    }

    /**
     * A try was right: those of that name from that address are forgotten, and it counts no more.
     */
    void right(String name, String address) {
        tries.change(here(name, address), _ -> null);
        less("a " + address);
        less("n " + Secrets.hash(name));
    }

    private void less(String key) {
        tries.change(
                key,
                before ->
                        before == null || before.count() <= 1
                                ? null
                                : new Tries(before.count() - 1, before.last()));
    }

    private static String here(String name, String address) {
        return "h " + Secrets.hash(name + '\0' + address);
    }
}
