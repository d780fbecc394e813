package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.Duration;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.port.StorageException;
import sandpiper.store.postgres.PostgresSettings;
import sandpiper.testing.PrivatePostgres;

/** The connection to the database breaks at each step of a write and of a release in its turn. */
@Tag("postgres")
class BrokenLineTest {
    /** More than a write takes; a release takes some more. */
    private static final int STEPS_OF_A_WRITE = 16;

    private static final int STEPS_OF_A_RELEASE = 45;
    private static final String TANK =
            """
            object: Tank
            key: code
            fields:
              code:  { type: text, length: 20, required: true }
              level: { type: integer, formula: "sum(fills.amount)" }
            """;
    private static final String FILL =
            """
            object: Fill
            key: number
            numbering: { field: number, pattern: "F-{sequence:6}" }
            fields:
              number: { type: text, length: 20 }
              tank:   { type: reference, to: Tank, required: true, inverse: fills }
              amount: { type: integer, required: true, unique: true }
            """;

    private CutLine line;
    private Harness yard;

    @BeforeEach
    void begin() throws IOException {
        var postgres = PrivatePostgres.shared();
        line = new CutLine(postgres.port());
        var url = postgres.schema().replace(":" + postgres.port() + "/", ":" + line.port() + "/");
        yard = new Harness(PostgresStorage.open(PostgresSettings.usual(url), Harness.CLOCK));
        yard.release(files(0));
        assertThat(yard.create("Tank", "code", "T")).isInstanceOf(Outcome.Done.class);
    }

    @AfterEach
    void end() {
        yard.close();
        line.close();
    }

    private static Map<String, String> files(int more) {
        var files = new HashMap<String, String>();
        files.put("yard/package.yaml", "package: yard\nversion: 1\n");
        files.put("yard/objects/tank.yaml", TANK);
        var fill = new StringBuilder(FILL);
        for (int i = 1; i <= more; i++) {
            fill.append("  note%d: { type: text, length: 20, default: n }\n".formatted(i));
        }
        files.put("yard/objects/fill.yaml", fill.toString());
        return files;
    }

    private long level() {
        return ((Number) yard.show("Tank", "T").get("level")).longValue();
    }

    @Test
    void aWriteIsDoneOnceOrNotAtAllAndWhoIsToldSoIsToldTheTruth() {
        long sum = 0;
        int uncertain = 0;
        int broken = 0;
        for (int step = 1; step <= STEPS_OF_A_WRITE; step++) {
            for (boolean arrives : new boolean[] {false, true}) {
                long amount = 2L * step + (arrives ? 1 : 0);
                line.breakAt(step, arrives);
                boolean answered = false;
                try {
                    var outcome = yard.create("Fill", "tank", "T", "amount", amount);
                    assertThat(outcome).as("step %d", step).isInstanceOf(Outcome.Done.class);
                    answered = true;
                } catch (StorageException.Uncertain _) {
                    uncertain++;
                }
                broken += line.broke() ? 1 : 0;
                long now = level();
                if (answered) {
                    assertThat(now).as("step %d", step).isEqualTo(sum + amount);
                } else {
                    assertThat(now).as("step %d", step).isIn(sum, sum + amount);
                }
                sum = now;
            }
        }
        assertThat(broken).as("steps at which it broke").isGreaterThan(8);
        // At which step the end is varies, with how long a connection was idle.
        assertThat(uncertain).as("only the commit can leave it open").isBetween(1, 6);
    }

    @Test
    void aReleaseIsMadeOnceOrNotAtAll() throws InterruptedException {
        int live = 1;
        int broken = 0;
        Set<String> said = new HashSet<>();
        for (int step = 1; step <= STEPS_OF_A_RELEASE; step += 2) {
            line.breakAt(step, step % 4 == 1);
            boolean answered = false;
            try {
                yard.release(files(step));
                answered = true;
            } catch (StorageException e) {
                said.add(String.valueOf(e.getMessage()));
            }
            broken += line.broke() ? 1 : 0;
            if (answered) {
                assertThat(yard.engine.live().number()).isEqualTo(live + 1);
                live++;
            } else {
                // What was stored without an answer is followed within a moment.
                Thread.sleep(Duration.ofMillis(800));
                assertThat(yard.engine.live().number()).isIn(live, live + 1);
                live = yard.engine.live().number();
            }
            assertThat(yard.create("Fill", "tank", "T", "amount", (long) -step))
                    .as("step %d, %s", step, said)
                    .isInstanceOf(Outcome.Done.class);
        }
        assertThat(broken).as("steps at which it broke").isGreaterThan(10);
    }
}
