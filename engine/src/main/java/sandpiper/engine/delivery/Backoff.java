package sandpiper.engine.delivery;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ThreadLocalRandom;

/**
 * How long to wait after each try that failed, and when to give up.
 *
 * @param waits after the first try, the second, and so on; after the last the delivery is parked
 */
public record Backoff(List<Duration> waits) {
    /** For handlers: what fails for long needs a person. About a quarter of an hour. */
    public static final Backoff OF_HANDLERS =
            new Backoff(
                    List.of(
                            Duration.ofSeconds(1),
                            Duration.ofSeconds(5),
                            Duration.ofSeconds(30),
                            Duration.ofMinutes(2),
                            Duration.ofMinutes(10)));

    /** For other systems, which may be down for a night: a little more than a day. */
    public static final Backoff OF_WEBHOOKS =
            new Backoff(
                    List.of(
                            Duration.ofSeconds(5),
                            Duration.ofSeconds(30),
                            Duration.ofMinutes(2),
                            Duration.ofMinutes(10),
                            Duration.ofMinutes(30),
                            Duration.ofHours(1),
                            Duration.ofHours(2),
                            Duration.ofHours(4),
                            Duration.ofHours(8),
                            Duration.ofHours(9)));

    /** The most a wait is longer than said, so that not all come back at once. */
    private static final double JITTER = 0.2;

    public Backoff {
        waits = List.copyOf(waits);
    }

    /**
     * When to try again, or nothing to give up.
     *
     * @param tries how often it was tried, at least 1
     */
    public Optional<Instant> next(int tries, Instant now) {
        if (tries > waits.size()) {
            return Optional.empty();
        }
        var wait = waits.get(tries - 1);
        long extra = (long) (wait.toMillis() * JITTER * ThreadLocalRandom.current().nextDouble());
        return Optional.of(now.plus(wait).plusMillis(extra));
    }
}
