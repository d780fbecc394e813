package sandpiper.store.postgres;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;

class SharedClockTest {
    private static final Instant NOW = Instant.parse("2026-05-01T10:00:00Z");

    private final SharedClock clock = new SharedClock(Clock.fixed(NOW, ZoneOffset.UTC));

    private Duration asked(Instant database, Duration took) {
        return clock.set(database, NOW.minus(took), NOW);
    }

    @Test
    void goesByTheDatabaseHoweverWrongTheMachineIs() {
        var itsTime = NOW.minus(Duration.ofMinutes(7));

        assertThat(asked(itsTime, Duration.ZERO)).isEqualTo(Duration.ofMinutes(-7));

        assertThat(clock.instant()).isEqualTo(itsTime);
        assertThat(clock.withZone(ZoneOffset.ofHours(2)).instant()).isEqualTo(itsTime);
    }

    @Test
    void theWayThereAndBackIsHalved() {
        asked(NOW.plusSeconds(60), Duration.ofSeconds(4));

        assertThat(clock.instant()).isEqualTo(NOW.plusSeconds(62));
    }

    @Test
    void whatTheWayAccountsForMovesNoClock() {
        asked(NOW.plusMillis(15), Duration.ZERO);

        assertThat(clock.instant()).isEqualTo(NOW);
    }
}
