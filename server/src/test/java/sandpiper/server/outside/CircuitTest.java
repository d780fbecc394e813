package sandpiper.server.outside;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import sandpiper.server.outside.Circuit.Leave;

class CircuitTest {
    private static final Instant START = Instant.parse("2026-05-01T10:00:00Z");
    private final Circuit circuit = new Circuit();

    private void fail(int times) {
        for (int i = 0; i < times; i++) {
            circuit.failed(START);
        }
    }

    @Test
    void letsCallsThroughUntilSomeHaveFailedInARow() {
        fail(4);
        circuit.succeeded();
        fail(4);
        assertThat(circuit.ask(START)).isEqualTo(Leave.CALL);
        assertThat(circuit.isOpen()).isFalse();

        fail(1);

        assertThat(circuit.ask(START)).isEqualTo(Leave.WAIT);
        assertThat(circuit.isOpen()).isTrue();
    }

    @Test
    void triesOnceAfterAWhileAndClosesWhenThatGoesWell() {
        fail(5);
        var later = START.plusSeconds(5);

        assertThat(circuit.ask(later)).isEqualTo(Leave.TRY);
        assertThat(circuit.ask(later)).as("others wait for what comes of it").isEqualTo(Leave.WAIT);
        circuit.succeeded();

        assertThat(circuit.ask(later)).isEqualTo(Leave.CALL);
    }

    @Test
    void waitsLongerEachTimeUpToABound() {
        fail(5);
        var at = START;
        for (int i = 0; i < 10; i++) {
            at = at.plus(Duration.ofMinutes(2));
            assertThat(circuit.ask(at)).isEqualTo(Leave.TRY);
            circuit.failed(at);
            assertThat(circuit.ask(at.plusSeconds(9))).isEqualTo(Leave.WAIT);
        }
        assertThat(circuit.ask(at.plus(Duration.ofMinutes(2)))).isEqualTo(Leave.TRY);
    }
}
