package sandpiper.server.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.SocketTimeoutException;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

class BodyReaderTest {
    private final AtomicLong time = new AtomicLong();
    private final BodyReader reader = new BodyReader(1 << 20, time::get);

    /** Gives a byte each so often. */
    private InputStream every(Duration wait, int bytes) {
        return new InputStream() {
            private int given;

            @Override
            public int read() {
                time.addAndGet(wait.toNanos());
                return given++ < bytes ? 'x' : -1;
            }

            @Override
            public int read(byte[] into, int from, int length) {
                int one = read();
                if (one >= 0) {
                    into[from] = (byte) one;
                }
                return one < 0 ? -1 : 1;
            }
        };
    }

    private static InputStream of(int bytes) {
        return new ByteArrayInputStream(new byte[bytes]);
    }

    @Test
    void aBodyIsReadToItsEnd() {
        try (var body = reader.read(new byte[] {1, 2}, of(3), 5, 10)) {
            assertThat(body.bytes()).hasSize(5);
        }
    }

    @Test
    void oneThatIsTooLargeIsRefusedBeforeItIsReadOrAsSoonAsItIs() {
        assertThatThrownBy(() -> reader.read(new byte[0], every(Duration.ofDays(1), 11), 11, 10))
                .hasMessageContaining("10 bytes");
        assertThatThrownBy(() -> reader.read(new byte[0], of(11), -1, 10))
                .hasMessageContaining("10 bytes");
    }

    @Test
    void oneThatComesTooSlowlyIsGivenUp() {
        assertThatThrownBy(() ->
                        reader.read(new byte[0], every(Duration.ofSeconds(4), 100), 100, 1_000))
                .hasMessageContaining("too slowly");
        assertThatThrownBy(() -> reader.head(every(Duration.ofSeconds(4), 100), 1_000))
                .hasMessageContaining("too slowly");
    }

    @Test
    void oneThatEndsEarlyIsNoBody() {
        assertThatThrownBy(() -> reader.read(new byte[0], of(3), 5, 10))
                .hasMessageContaining("ends before all of it has come");
        var broken =
                new InputStream() {
                    @Override
                    public int read() throws IOException {
                        throw new SocketTimeoutException();
                    }
                };
        assertThatThrownBy(() -> reader.read(new byte[0], broken, 5, 10))
                .hasMessageContaining("in time");
    }

    @Test
    void roomIsGivenBackHoweverItEnds() {
        var small = new BodyReader(64 << 10, time::get);
        for (int i = 0; i < 50; i++) {
            try (var body = small.read(new byte[0], of(40_000), 40_000, 50_000)) {
                assertThat(body.bytes()).hasSize(40_000);
            }
            assertThatThrownBy(() -> small.read(new byte[0], of(60_000), -1, 50_000))
                    .hasMessageContaining("50,000 bytes");
        }
    }

    @Test
    void nobodyGetsMoreThanAShare() {
        var shares = new BodyShares(5, 2);

        assertThat(shares.take("a")).isTrue();
        assertThat(shares.take("a")).isTrue();
        assertThat(shares.take("a")).isFalse();
        assertThat(shares.take("b")).isTrue();
        shares.give("a");
        assertThat(shares.take("a")).isTrue();
        assertThat(shares.take("c")).isTrue();
        assertThat(shares.take("c")).isTrue();
        assertThat(shares.take("d")).as("there are five").isFalse();
        for (var caller : "a a b c c".split(" ")) {
            shares.give(caller);
        }
        assertThat(shares.callers()).isZero();
    }
}
