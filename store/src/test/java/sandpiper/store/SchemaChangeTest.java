package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.definition.ReleasePreview.Result;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.read.PlainRecords;

/** What becomes of records when their definitions change. */
class SchemaChangeTest {
    private static final Clock CLOCK =
            Clock.fixed(Instant.parse("2026-05-01T10:00:00Z"), ZoneOffset.UTC);
    private static final String BEFORE =
            """
            object: Berth
            key: code
            fields:
              code: { type: text, length: 8, required: true }
              depth: { type: decimal, scale: 1 }
              slots: { type: integer }
              note: { type: text }
            parts:
              repairs:
                fields:
                  what: { type: text }
            """;

    @TempDir Path folder;

    private Engine engine;

    @BeforeEach
    void start() {
        engine = open();
        release(BEFORE, false);
        create("N-07", Map.of("depth", new BigDecimal("2.5"), "slots", 3L, "note", "by the crane"));
        create("N-08", Map.of("note", "long enough to be in the way"));
    }

    private Engine open() {
        return new Engine(Stores.open(folder.resolve("data.db"), CLOCK), CLOCK);
    }

    @AfterEach
    void stop() {
        engine.close();
    }

    private Result release(String berth, boolean acceptLosses) {
        var files =
                Map.of("m/package.yaml", "package: m\nversion: 1\n", "m/objects/berth.yaml", berth);
        engine.drafts().push(files, Actor.SYSTEM);
        return engine.releases()
                .release("", new Releases.Accepted(acceptLosses, false), Actor.SYSTEM);
    }

    private Outcome create(String code, Map<String, Object> more) {
        var values = new HashMap<String, Object>(more);
        values.put("code", code);
        return engine.records()
                .write(live -> {
                    var type = live.release().object("Berth");
                    var command =
                            new RecordCommand.Create(
                                    type, live.release().everythingOf(type), values);
                    return new Request(command, Actor.SYSTEM, "test", false);
                });
    }

    private Map<String, Object> read(String object, String key) {
        return engine.records()
                .read((live, session) -> {
                    var type = live.release().object(object);
                    var tree = live.release().everythingOf(type);
                    return PlainRecords.of(
                            tree,
                            engine.records().find(live, session, type, key, tree).orElseThrow());
                });
    }

    private static String refusal(Result result) {
        var preview = ((Result.Refused) result).preview();
        return preview.obstacles() + " " + preview.losses();
    }

    @Test
    void anAddedFieldHasItsDefaultInRecordsThatWereThere() {
        assertThat(
                        release(
                                BEFORE.replace(
                                        "slots:",
                                        "powered: { type: boolean, default: true }\n  slots:"),
                                false))
                .isInstanceOf(Result.Released.class);

        assertThat(read("Berth", "N-07"))
                .containsEntry("powered", true)
                .containsEntry("note", "by the crane");
    }

    @Test
    void aRequiredFieldNeedsADefaultWhenRecordsAreThere() {
        var result =
                release(
                        BEFORE.replace("slots:", "pier: { type: text, required: true }\n  slots:"),
                        true);

        assertThat(refusal(result))
                .contains("Berth.pier is required, but what is there, 2 records, has no value");
        assertThat(read("Berth", "N-07")).doesNotContainKey("pier");
    }

    @Test
    void aRenamedFieldAndObjectKeepTheirValues() {
        var after =
                BEFORE.replace("object: Berth", "object: Place\nwas: Berth")
                        .replace("depth:", "draught:")
                        .replace("scale: 1", "scale: 1, was: depth");

        assertThat(release(after, false)).isInstanceOf(Result.Released.class);
        assertThat(read("Place", "N-07")).containsEntry("draught", new BigDecimal("2.5"));
    }

    @Test
    void aRemovedFieldGoesOnlyWhenThatIsAccepted() {
        var after = BEFORE.replace("  note: { type: text }\n", "");

        assertThat(refusal(release(after, false)))
                .contains(
                        "Berth.note is removed. Its value in 2 records is kept aside for 30 days");
        assertThat(read("Berth", "N-07")).containsEntry("note", "by the crane");
        assertThat(release(after, true)).isInstanceOf(Result.Released.class);
        assertThat(read("Berth", "N-07")).doesNotContainKey("note");
    }

    @Test
    void numbersAreKeptWhenTheirScaleGrowsOrTheyBecomeText() {
        release(
                BEFORE.replace("scale: 1", "scale: 3")
                        .replace("slots: { type: integer }", "slots: { type: text }"),
                false);

        assertThat(read("Berth", "N-07"))
                .containsEntry("depth", new BigDecimal("2.500"))
                .containsEntry("slots", "3");
        release(
                BEFORE.replace("decimal, scale: 1", "text")
                        .replace("slots: { type: integer }", "slots: { type: text }"),
                false);
        assertThat(read("Berth", "N-07")).containsEntry("depth", "2.500");
    }

    @Test
    void aChangeThatCouldSpoilValuesIsRefusedWithTheReason() {
        assertThat(refusal(release(BEFORE.replace("decimal, scale: 1", "integer"), true)))
                .contains("1 record has more than 0 decimal places");
        assertThat(
                        refusal(
                                release(
                                        BEFORE.replace(
                                                "note: { type: text }",
                                                "note: { type: text, length: 12 }"),
                                        true)))
                .contains("1 record has more than 12 characters");
        assertThat(
                        refusal(
                                release(
                                        BEFORE.replace(
                                                "note: { type: text }", "note: { type: date }"),
                                        true)))
                .contains("2 records have a text that cannot be read as that");
        assertThat(
                        refusal(
                                release(
                                        BEFORE.replace(
                                                "note: { type: text }", "note: { type: duration }"),
                                        true)))
                .contains("there is no sure way to keep the values");
        assertThat(
                        refusal(
                                release(
                                        BEFORE.replace(
                                                "slots: { type: integer }",
                                                "slots: { type: integer, required: true }"),
                                        true)))
                .contains("1 record has no value");
        assertThat(release(BEFORE, false)).isInstanceOf(Result.Refused.class);
        assertThat(read("Berth", "N-07")).containsEntry("depth", new BigDecimal("2.5"));
    }

    @Test
    void everythingIsThereAgainAfterARestart() {
        release(BEFORE.replace("depth:", "draught:"), true);
        engine.close();

        engine = open();

        assertThat(engine.live().number()).isEqualTo(2);
        assertThat(read("Berth", "N-08")).containsEntry("note", "long enough to be in the way");
    }

    @Test
    void requestsGoOnWhileAReleaseComes() throws Exception {
        var done = new AtomicBoolean();
        try (var pool = Executors.newFixedThreadPool(2)) {
            var readers =
                    pool.submit(() -> {
                        int reads = 0;
                        while (!done.get()) {
                            assertThat(engine.live().release().find("Berth")).isPresent();
                            assertThat(read("Berth", "N-07")).containsEntry("code", "N-07");
                            reads++;
                        }
                        return reads;
                    });
            var writers =
                    pool.submit(() -> {
                        for (int i = 0; !done.get(); i++) {
                            assertThat(create("W-%04d".formatted(i), Map.of()))
                                    .isInstanceOf(Outcome.Done.class);
                        }
                        return true;
                    });
            for (int i = 0; i < 6; i++) {
                var named =
                        BEFORE.replace(
                                "depth: { type: decimal, scale: 1 }",
                                i % 2 == 0
                                        ? "draught: { type: decimal, scale: 1, was: depth }"
                                        : "depth: { type: decimal, scale: 1, was: draught }");
                assertThat(release(named, false)).isInstanceOf(Result.Released.class);
            }
            done.set(true);

            assertThat(readers.get()).isPositive();
            assertThat(writers.get()).isTrue();
        }
        assertThat(read("Berth", "N-07")).containsEntry("depth", new BigDecimal("2.5"));
    }
}
