package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.CountedTries.Tries;
import sandpiper.engine.access.OpenSession;
import sandpiper.engine.command.Expected;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.definition.ReleasePreview;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.port.Storage;
import sandpiper.engine.release.LiveRelease;
import sandpiper.store.postgres.PostgresSettings;
import sandpiper.testing.PrivatePostgres;

/** Two engines on one database, as two processes would have it, under load. */
@Tag("postgres")
class TwoProcessesTest {
    private static final String PACKAGE = "package: yard\nversion: 1\n";
    private static final String TANK =
            """
            object: Tank
            key: code
            fields:
              code:  { type: text, length: 20, required: true }
              level: { type: integer, formula: "sum(fills.amount)" }
              full:  { type: integer, default: 0 }
            rules:
              fills:
                on: change of level
                when: level >= 50 and full = 0
                then: |
                  set full = full + 1
                  emit Overflow { level: level }
            """;
    private static final String FILL =
            """
            object: Fill
            key: number
            numbering: { field: number, pattern: "F-{sequence:6}" }
            fields:
              number: { type: text, length: 20 }
              tank:   { type: reference, to: Tank, required: true, inverse: fills }
              amount: { type: integer, required: true }
            """;
    private static final String BILL =
            """
            object: Bill
            key: number
            numbering: { field: number, pattern: "B-{sequence:6}", gapless: true }
            fields:
              number: { type: text, length: 20 }
              note:   { type: text, length: 20 }
            """;
    private static final String OVERFLOW =
            """
            event: Overflow
            about: Tank
            fields:
              level: { type: integer }
            """;
    private static final String LOG =
            """
            object: Entry
            key: note
            fields:
              note: { type: text, length: 60 }
            """;
    private static final int THREADS = 4;

    private final List<Storage> storages = new ArrayList<>();
    private final List<Engine> engines = new ArrayList<>();

    @BeforeEach
    void open() {
        var url = PrivatePostgres.shared().schema();
        for (int i = 0; i < 2; i++) {
            var storage = PostgresStorage.open(PostgresSettings.usual(url));
            storages.add(storage);
            engines.add(new Engine(storage, Clock.systemUTC()));
        }
        release(engines.getFirst(), files());
        eventually(() -> engines.getLast().live().number() == 1);
    }

    @AfterEach
    void close() {
        engines.forEach(Engine::close);
    }

    private static Map<String, String> files() {
        var files = new HashMap<String, String>();
        files.put("yard/package.yaml", PACKAGE);
        files.put("yard/objects/tank.yaml", TANK);
        files.put("yard/objects/fill.yaml", FILL);
        files.put("yard/objects/bill.yaml", BILL);
        files.put("yard/objects/entry.yaml", LOG);
        files.put("yard/events/overflow.yaml", OVERFLOW);
        return files;
    }

    private static void release(Engine engine, Map<String, String> files) {
        engine.drafts().push(files, Actor.SYSTEM);
        assertThat(engine.drafts().check().errors()).isEmpty();
        assertThat(
                        engine.releases()
                                .release("test", new Releases.Accepted(true, true), Actor.SYSTEM))
                .isInstanceOf(ReleasePreview.Result.Released.class);
    }

    private static Request request(RecordCommand command) {
        return new Request(command, Actor.SYSTEM, "test", false);
    }

    private static Outcome create(Engine engine, String object, Map<String, Object> values) {
        return engine.records().write(live -> creating(live, object, values));
    }

    private static Request creating(LiveRelease live, String object, Map<String, Object> values) {
        var type = live.release().object(object);
        return request(
                new RecordCommand.Create(
                        type, live.release().everythingOf(type), new HashMap<>(values)));
    }

    /** Does something many times on both at once; gives what came of it. */
    private List<Outcome> atOnce(int times, Doing doing) throws InterruptedException {
        var outcomes = new ConcurrentLinkedQueue<Outcome>();
        var failures = new ConcurrentLinkedQueue<Throwable>();
        var next = new AtomicInteger();
        try (var threads = Executors.newFixedThreadPool(2 * THREADS)) {
            for (int t = 0; t < 2 * THREADS; t++) {
                var engine = engines.get(t % 2);
                threads.execute(() -> {
                    for (int i = next.getAndIncrement(); i < times; i = next.getAndIncrement()) {
                        try {
                            outcomes.add(doing.once(engine, i));
                        } catch (RuntimeException | AssertionError e) {
                            failures.add(e);
                        }
                    }
                });
            }
            threads.shutdown();
            assertThat(threads.awaitTermination(60, TimeUnit.SECONDS)).isTrue();
        }
        assertThat(failures).isEmpty();
        return List.copyOf(outcomes);
    }

    private interface Doing {
        Outcome once(Engine engine, int time);
    }

    private long ask(String sql) {
        try (var session = storages.getFirst().snapshot()) {
            return sandpiper.store.sql.SqlSession.of(session)
                    .number(sandpiper.store.sql.Statement.written(sql));
        }
    }

    @Test
    void totalsNumbersAndCrossingsAreRightWhoeverWrites() throws InterruptedException {
        for (int i = 0; i < 3; i++) {
            create(engines.getFirst(), "Tank", Map.of("code", "T" + i));
        }

        var outcomes =
                atOnce(
                        240,
                        (engine, i) ->
                                create(engine, "Fill", Map.of("tank", "T" + i % 3, "amount", 1)));

        assertThat(outcomes).hasSize(240).allMatch(Outcome.Done.class::isInstance);
        assertThat(ask("select count(*) from \"Fill\"")).isEqualTo(240);
        assertThat(ask("select count(distinct number) from \"Fill\"")).isEqualTo(240);
        assertThat(ask("select sum(level) from \"Tank\"")).isEqualTo(240);
        assertThat(ask("select count(*) from \"Tank\" where \"full\" = 1")).isEqualTo(3);
        eventually(() -> ask("select count(*) from sandpiper_event where name = 'Overflow'") == 3);
    }

    @Test
    void aSeriesWithoutGapsHasNone() throws InterruptedException {
        atOnce(
                60,
                (engine, i) ->
                        create(
                                engine,
                                "Bill",
                                // Every third is refused, and leaves no gap behind.
                                Map.of(
                                        "note",
                                        i % 3 == 0 ? "far too long a note to be kept" : "ok")));

        assertThat(ask("select count(*) from \"Bill\"")).isEqualTo(40);
        assertThat(ask("select max(cast(substr(number, 3) as bigint)) from \"Bill\""))
                .isEqualTo(40);
    }

    @Test
    void ofOneVersionThereIsOneWinner() throws InterruptedException {
        create(engines.getFirst(), "Tank", Map.of("code", "T"));

        var outcomes =
                atOnce(
                        16,
                        (engine, i) ->
                                engine.records()
                                        .write(live -> {
                                            var type = live.release().object("Tank");
                                            return request(
                                                    new RecordCommand.Change(
                                                            type,
                                                            live.release().everythingOf(type),
                                                            "T",
                                                            new HashMap<>(Map.of("full", i + 1)),
                                                            new Expected.Versions(Set.of(1L))));
                                        }));

        assertThat(outcomes.stream().filter(Outcome.Done.class::isInstance)).hasSize(1);
        assertThat(ask("select _version from \"Tank\"")).isEqualTo(2);
    }

    @Test
    void ofOneKeyThereIsOneRecord() throws InterruptedException {
        var outcomes =
                atOnce(40, (engine, i) -> create(engine, "Tank", Map.of("code", "K" + i / 8)));

        assertThat(outcomes.stream().filter(Outcome.Done.class::isInstance)).hasSize(5);
        assertThat(outcomes.stream().filter(Outcome.Refused.class::isInstance)).hasSize(35);
    }

    @Test
    void aReleaseComesBetweenAndNothingIsWrittenUnderTheOneBefore() throws InterruptedException {
        var more = files();
        more.put(
                "yard/objects/entry.yaml",
                LOG + "  by: { type: text, required: true, default: \"new\" }\n");
        var seen = new AtomicLong();

        var outcomes =
                atOnce(
                        600,
                        (engine, i) -> {
                            if (i == 60) {
                                release(engine, more);
                            }
                            if (engine.live()
                                    .release()
                                    .object("Entry")
                                    .fields()
                                    .find("by")
                                    .isPresent()) {
                                seen.incrementAndGet();
                            }
                            return create(engine, "Entry", Map.of("note", "n" + i));
                        });

        assertThat(outcomes).hasSize(600).allMatch(Outcome.Done.class::isInstance);
        assertThat(ask("select count(*) from \"Entry\" where by is null")).isZero();
        assertThat(seen).hasPositiveValue();
        eventually(() -> engines.stream().allMatch(engine -> engine.live().number() == 2));
    }

    @Test
    void ofTwoReleasesAtOnceBothCome() throws InterruptedException {
        var numbers = new HashSet<Integer>();
        var failures = new ConcurrentLinkedQueue<Throwable>();
        var threads = new ArrayList<Thread>();
        for (int i = 0; i < 2; i++) {
            var engine = engines.get(i);
            var files = files();
            files.put("yard/objects/entry.yaml", LOG + "  of%d: { type: text }\n".formatted(i));
            threads.add(
                    Thread.ofPlatform()
                            .start(() -> {
                                try {
                                    release(engine, files);
                                } catch (RuntimeException | AssertionError e) {
                                    failures.add(e);
                                }
                            }));
        }
        for (var thread : threads) {
            thread.join();
        }

        // They share one draft: whoever is second may find its own put aside by the other's.
        assertThat(failures).hasSizeLessThanOrEqualTo(1);
        engines.forEach(engine -> {
            create(engine, "Entry", Map.of("note", "after" + numbers.size()));
            numbers.add(engine.live().number());
        });
        assertThat(numbers).hasSize(1);
        assertThat(ask("select max(number) from sandpiper_release"))
                .isEqualTo(numbers.iterator().next().longValue());
    }

    private static void eventually(java.util.function.BooleanSupplier holds) {
        long end = System.nanoTime() + 10_000_000_000L;
        while (!holds.getAsBoolean()) {
            assertThat(System.nanoTime()).isLessThan(end);
            Thread.onSpinWait();
        }
    }

    @Test
    void whoSignsInAtOneIsSignedInAtTheOther() {
        var now = Instant.now();
        engines.getFirst()
                .sessions()
                .begin("hash", new OpenSession("1", "ann", "stamp", "10.0.0.1", "", now, now));
        assertThat(engines.getLast().sessions().find("hash")).isPresent();

        engines.getLast().sessions().end("hash");
        assertThat(engines.getFirst().sessions().find("hash")).isEmpty();
    }

    @Test
    void passwordsTriedAtBothAreCountedTogether() throws Exception {
        try (var callers = Executors.newFixedThreadPool(8)) {
            var all = new ArrayList<Callable<Boolean>>();
            for (int i = 0; i < 40; i++) {
                var tries = engines.get(i % 2).tries().orElseThrow();
                all.add(() -> {
                    tries.change(
                            "k",
                            before ->
                                    new Tries(
                                            before == null ? 1 : before.count() + 1,
                                            Instant.EPOCH));
                    return true;
                });
            }
            for (var one : callers.invokeAll(all)) {
                assertThat(one.get()).isTrue();
            }
        }
        var counted = engines.getFirst().tries().orElseThrow().change("k", before -> before);
        assertThat(counted).isEqualTo(new Tries(40, Instant.EPOCH));
    }
}
