package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.read.PlainRecords;
import sandpiper.store.postgres.PostgresSettings;
import sandpiper.testing.PrivatePostgres;

/** The primary dies under load and a streaming replica takes its place. */
@Tag("postgres")
class FailOverTest {
    private static final int WRITERS = 4;
    private static final String LOG =
            """
            object: Entry
            key: number
            numbering: { field: number, pattern: "E-{sequence:6}" }
            fields:
              number: { type: text, length: 20 }
              note:   { type: text, length: 60, unique: true }
            """;

    private final Set<String> answered = ConcurrentHashMap.newKeySet();
    private final Set<String> open = ConcurrentHashMap.newKeySet();
    private final AtomicInteger next = new AtomicInteger();

    @Test
    void theServiceGoesOnByItselfAndHasWhatItAnswered() throws Exception {
        try (var primary = PrivatePostgres.start();
                var replica = primary.follower()) {
            var url =
                    "jdbc:postgresql://127.0.0.1:%d,127.0.0.1:%d/postgres?user=sandpiper&targetServerType=primary"
                            .formatted(primary.port(), replica.port());
            try (var yard =
                    new Harness(PostgresStorage.open(PostgresSettings.usual(url), Harness.CLOCK))) {
                yard.release(LOG);
                underLoad(yard, primary, replica);
                look(yard);
            }
        }
    }

    private void underLoad(Harness yard, PrivatePostgres primary, PrivatePostgres replica)
            throws Exception {
        var over = new AtomicBoolean();
        try (var writers = Executors.newFixedThreadPool(WRITERS)) {
            for (int i = 0; i < WRITERS; i++) {
                writers.execute(() -> {
                    while (!over.get()) {
                        write(yard);
                    }
                });
            }
            Thread.sleep(Duration.ofSeconds(1));
            primary.down(true);
            int before = answered.size();
            replica.promote();
            for (int i = 0; i < 300 && answered.size() < before + 50; i++) {
                Thread.sleep(Duration.ofMillis(100));
            }
            over.set(true);
            assertThat(answered.size()).as("it goes on").isGreaterThanOrEqualTo(before + 50);
        }
    }

    private void write(Harness yard) {
        var note = "n" + next.incrementAndGet();
        try {
            if (yard.create("Entry", "note", note) instanceof Outcome.Done) {
                answered.add(note);
            }
        } catch (StorageException.Uncertain _) {
            open.add(note);
        } catch (StorageException _) {
            // Nothing of it was done.
        }
    }

    /** Everything answered is there once, and nothing that was not so much as tried. */
    private void look(Harness yard) {
        var notes =
                yard.engine
                        .records()
                        .read((live, session) -> {
                            var type = live.release().object("Entry");
                            var tree = live.release().everythingOf(type);
                            return live.records().numbersAfter(session, type, 0, 100_000).stream()
                                    .map(number -> live.records().view(session, type, number, tree))
                                    .map(view -> PlainRecords.of(tree, view.orElseThrow()))
                                    .map(plain -> String.valueOf(plain.get("note")))
                                    .toList();
                        });
        assertThat(notes).doesNotHaveDuplicates().containsAll(answered);
        answered.addAll(open);
        assertThat(answered).containsAll(notes);
    }
}
