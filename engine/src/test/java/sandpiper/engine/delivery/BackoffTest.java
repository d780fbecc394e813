package sandpiper.engine.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class BackoffTest {
    private static final Instant NOW = Instant.parse("2026-05-01T12:00:00Z");

    @Test
    void eachTryWaitsAsLongAsSaidAndUpToAFifthMore() {
        var backoff = new Backoff(List.of(Duration.ofSeconds(10), Duration.ofMinutes(1)));

        for (int i = 0; i < 100; i++) {
            assertThat(backoff.next(1, NOW).orElseThrow())
                    .isBetween(NOW.plusSeconds(10), NOW.plusSeconds(12));
            assertThat(backoff.next(2, NOW).orElseThrow())
                    .isBetween(NOW.plusSeconds(60), NOW.plusSeconds(72));
        }
    }

    @Test
    void afterTheLastWaitItIsGivenUp() {
        assertThat(new Backoff(List.of(Duration.ofSeconds(1))).next(2, NOW)).isEmpty();
        assertThat(new Backoff(List.of()).next(1, NOW)).isEmpty();
    }

    @Test
    void otherSystemsMayBeDownForANight() {
        var all = Backoff.OF_WEBHOOKS.waits().stream().reduce(Duration.ZERO, Duration::plus);

        assertThat(all).isGreaterThan(Duration.ofHours(24));
    }
}
