package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.Engine;
import sandpiper.engine.access.OpenSession;

/** Sessions of people, as they are kept. */
class SignInsTest {
    private static final Instant BEGUN = Instant.parse("2026-05-01T08:00:00Z");

    @TempDir Path folder;

    private final AtomicReference<Instant> now = new AtomicReference<>(BEGUN);
    private final Clock clock =
            new Clock() {
                @Override
                public Instant instant() {
                    return now.get();
                }

                @Override
                public java.time.ZoneId getZone() {
                    return ZoneOffset.UTC;
                }

                @Override
                public Clock withZone(java.time.ZoneId zone) {
                    return this;
                }
            };
    private Engine engine;

    @BeforeEach
    void start() {
        engine = new Engine(Stores.open(folder.resolve("data.db"), clock), clock);
    }

    @AfterEach
    void stop() {
        engine.close();
    }

    private void after(Duration time) {
        now.set(BEGUN.plus(time));
    }

    private void begin(String hash, String id, String user) {
        engine.sessions()
                .begin(
                        hash,
                        new OpenSession(id, user, "stamp", "10.0.0.1", "", now.get(), now.get()));
    }

    @Test
    void aSessionIsThereAfterARestart() {
        begin("h1", "one", "ann");
        stop();
        start();

        assertThat(engine.sessions().find("h1").map(OpenSession::user)).contains("ann");
        assertThat(engine.sessions().find("h2")).isEmpty();
    }

    @Test
    void itEndsAfterADayHoweverBusyItIs() {
        begin("h1", "one", "ann");
        for (int hour = 1; hour < 24; hour++) {
            after(Duration.ofHours(hour));
            assertThat(engine.sessions().find("h1")).as("after %d h", hour).isPresent();
            // What is noted later is noted when what comes behind it is.
            engine.checkWritable();
        }
        after(Duration.ofHours(24));
        assertThat(engine.sessions().find("h1")).isEmpty();
        assertThat(engine.sessions().of("ann")).isEmpty();
    }

    @Test
    void itEndsWhenNobodyUsesItForHalfADay() {
        begin("h1", "one", "ann");
        after(Duration.ofHours(12));
        assertThat(engine.sessions().find("h1")).isEmpty();
    }

    @Test
    void peopleSeeAndEndTheirOwnAlone() {
        begin("h1", "one", "ann");
        after(Duration.ofMinutes(5));
        begin("h2", "two", "ann");
        begin("h3", "three", "bob");

        assertThat(engine.sessions().of("ann"))
                .extracting(OpenSession::id)
                .containsExactly("two", "one");
        assertThat(engine.sessions().end("ann", "three")).as("somebody else's").isFalse();
        assertThat(engine.sessions().end("ann", "one")).isTrue();
        assertThat(engine.sessions().find("h1")).isEmpty();
        engine.sessions().end("h3");
        assertThat(engine.sessions().of("bob")).isEmpty();
    }

    @Test
    void whatIsOverIsForgotten() {
        begin("h1", "one", "ann");
        after(Duration.ofHours(25));
        begin("h2", "two", "ann");
        engine.forgetOld();
        // Were it still there, the way back in time would show it.
        after(Duration.ofHours(1));
        assertThat(engine.sessions().of("ann")).extracting(OpenSession::id).containsExactly("two");
    }

    @Test
    void aBrowserMayCallItselfAnything() {
        var agent = "a\0b \ud83d\udc1f \u0007";
        engine.sessions()
                .begin("h1", new OpenSession("one", "ann", "s", "10.0.0.1", agent, BEGUN, BEGUN));

        assertThat(engine.sessions().find("h1").map(OpenSession::agent).orElseThrow())
                .startsWith("a")
                .endsWith("b \ud83d\udc1f \u0007");
    }
}
