package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.lang.reflect.Proxy;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.example.Examples;
import sandpiper.engine.port.SchemaStorage;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.rehearsal.CopyHost;
import sandpiper.engine.rehearsal.FileCopies;
import sandpiper.engine.rehearsal.RehearsalException;
import sandpiper.engine.rehearsal.RehearsalReport;
import sandpiper.engine.rehearsal.RehearsalReport.Stage;
import sandpiper.engine.rehearsal.Rehearsals;
import sandpiper.engine.rehearsal.ReplayReport;

/** The draft on a copy of what there is. */
@Tag("sqlite")
class RehearsalTest {
    private static final String BUOY =
            """
            object: Buoy
            key: code
            fields:
              code: { type: text, required: true }
              weight: { type: integer }
              note: { type: text }
            """;
    private static final String REQUIREMENTS =
            """
            requirements:
              R1:
                text: A buoy has a code of its own.
                examples:
                  free:
                    when: { create: Buoy, values: { code: B900 } }
                    then: { values: { code: B900 } }
                  givenHere:
                    given: [{ create: Buoy, values: { code: B1, weight: 9 } }]
                    when: { change: Buoy/B1, values: { note: new } }
                    then: { values: { weight: 9, note: new } }
                  takenHere:
                    when: { create: Buoy, values: { code: B1 } }
                    then: { values: { code: B1 } }
            """;

    @TempDir Path folder;
    private final Host host = new Host();
    private Harness marina;
    private Rehearsals rehearsals;

    /** Serves copies in words only. */
    private static final class Host implements CopyHost {
        private final List<Copy> served = new CopyOnWriteArrayList<>();
        private final AtomicInteger open = new AtomicInteger();
        private final CountDownLatch replaying = new CountDownLatch(1);
        private int recorded;
        private boolean endless;
        private @Nullable Copy before;

        @Override
        public boolean hasCalls() {
            return recorded > 0;
        }

        @Override
        public Served serve(Copy copy) {
            served.add(copy);
            open.incrementAndGet();
            return new Served() {
                @Override
                public String place() {
                    return "/rehearsal";
                }

                @Override
                public void close() {
                    open.decrementAndGet();
                }
            };
        }

        @Override
        public ReplayReport replay(Copy copy, Served after) throws InterruptedException {
            before = copy;
            assertThat(Path.of(copy.data())).exists();
            replaying.countDown();
            if (endless) {
                Thread.sleep(60_000);
            }
            return new ReplayReport(Harness.CLOCK.instant(), recorded, 0, List.of());
        }
    }

    @BeforeEach
    void begin() {
        marina = new Harness(folder).release(BUOY);
        for (int i = 0; i < 300; i++) {
            marina.create("Buoy", "code", "B" + i, "weight", (long) i, "note", "n" + i);
        }
        rehearsals = with(copy -> SqliteStorage.open(copy, Harness.CLOCK));
    }

    private Rehearsals with(Function<Path, Storage> opener) {
        return new Rehearsals(
                marina.engine,
                new Examples(SqliteStorage::temporary),
                new FileCopies(marina.engine, folder.resolve("data.db"), opener),
                host);
    }

    @AfterEach
    void end() {
        rehearsals.close();
        marina.close();
    }

    private void draft(String object) {
        marina.engine.drafts().put("marina/objects/o00.yaml", object, null, Actor.SYSTEM);
    }

    private RehearsalReport awaited() throws InterruptedException {
        var last = rehearsals.last().orElseThrow();
        for (int i = 0; i < 600 && !last.stage().isOver(); i++) {
            Thread.sleep(50);
            last = rehearsals.last().orElseThrow();
        }
        assertThat(last.stage().isOver()).as(last.toString()).isTrue();
        return last;
    }

    private List<String> files() throws IOException {
        try (var files = Files.list(folder)) {
            return files.map(file -> file.getFileName().toString()).toList();
        }
    }

    /** The same but for one method. */
    private static <T> T instead(Class<T> type, T real, String method, Supplier<Object> answer) {
        return type.cast(
                Proxy.newProxyInstance(
                        type.getClassLoader(),
                        new Class<?>[] {type},
                        (_, called, arguments) ->
                                called.getName().equals(method)
                                        ? answer.get()
                                        : called.invoke(real, arguments)));
    }

    private RehearsalReport rehearsed() throws InterruptedException {
        rehearsals.begin(Actor.SYSTEM);
        return awaited();
    }

    @Test
    void itTellsWhatTheReleaseDoesAndHowLongItTakesAndLeavesNothing() throws Exception {
        draft(
                BUOY.replace("  note: { type: text }\n", "")
                        + "  double: { type: integer, formula: weight * 2 }\n");

        var came = rehearsed();

        assertThat(came.stage()).as(came.toString()).isEqualTo(Stage.DONE);
        assertThat(came.release()).isEqualTo(1);
        assertThat(came.bytes()).isPositive();
        assertThat(came.took().releasing()).isPositive();
        assertThat(came.preview().follows())
                .containsExactly("Buoy.double is worked out anew for 300 records of Buoy.");
        assertThat(came.preview().losses()).hasSize(1).first().asString().contains("Buoy.note");
        assertThat(came.failing()).isEmpty();
        assertThat(came.differing()).isEmpty();
        rehearsals.end();
        assertThat(files()).noneMatch(file -> file.contains("rehearsal"));
        assertThat(marina.engine.live().number()).isEqualTo(1);
        assertThat(marina.show("Buoy", "B7")).containsEntry("note", "n7");
        assertThat(marina.engine.releases().kept().all()).isEmpty();
    }

    @Test
    void formulasThatAreLeftForAfterwardsAreTimedByThemselves() throws Exception {
        for (int i = 300; i < 7_200; i += 100) {
            int from = i;
            marina.createTogether(
                    "Buoy",
                    java.util.stream.IntStream.range(from, from + 100)
                            .mapToObj(one -> Harness.values("code", "B" + one, "weight", 1L))
                            .toList());
        }
        draft(BUOY + "  double: { type: integer, formula: weight * 2 }\n");

        var came = rehearsed();

        assertThat(came.worked()).containsExactly("Buoy.double");
        assertThat(came.took().formulas()).isPositive();
    }

    @Test
    void whatWouldBeRefusedIsToldWithWhy() throws Exception {
        draft(BUOY.replace("note: {", "colour: { required: true, type: text }\n  note: {"));

        var came = rehearsed();

        assertThat(came.stage()).isEqualTo(Stage.REFUSED);
        assertThat(came.message()).contains("The data stands in the way");
        assertThat(came.preview().obstacles()).first().asString().contains("Buoy.colour");
    }

    @Test
    void anExampleMayHoldByItselfAndNotOnWhatThereIs() throws Exception {
        marina.engine
                .drafts()
                .push(
                        Map.of(
                                "marina/package.yaml",
                                "package: marina\nversion: 1.0\n",
                                "marina/objects/o00.yaml",
                                BUOY,
                                "marina/requirements/r.yaml",
                                REQUIREMENTS),
                        Actor.SYSTEM);
        assertThat(marina.engine.drafts().check().errors()).isEmpty();

        var came = rehearsed();

        assertThat(came.failing()).isEmpty();
        assertThat(came.differing()).hasSize(1);
        assertThat(came.differing().getFirst().label()).containsIgnoringCase("taken");

        // Once it is so with what is live, it is not the next release's doing.
        marina.engine.releases().release("", new Releases.Accepted(true, true), Actor.SYSTEM);
        draft(BUOY + "  more: { type: text }\n");
        assertThat(rehearsed().differing()).isEmpty();
    }

    @Test
    void thereIsOneAtATimeAndItCanBeEnded() throws Exception {
        rehearsals.close();
        var opened = new CountDownLatch(1);
        var go = new CountDownLatch(1);
        rehearsals =
                with(copy -> {
                    opened.countDown();
                    try {
                        go.await(10, TimeUnit.SECONDS);
                    } catch (InterruptedException _) {
                        Thread.currentThread().interrupt();
                    }
                    return SqliteStorage.open(copy, Harness.CLOCK);
                });
        draft(BUOY + "  more: { type: text }\n");
        rehearsals.begin(Actor.SYSTEM);
        assertThat(opened.await(10, TimeUnit.SECONDS)).isTrue();

        assertThatThrownBy(() -> rehearsals.begin(Actor.SYSTEM))
                .isInstanceOf(RehearsalException.class)
                .hasMessageContaining("is under way");
        assertThat(rehearsals.end()).isTrue();
        assertThat(awaited().stage()).isEqualTo(Stage.STOPPED);
        assertThat(rehearsals.end()).isFalse();
        assertThat(files()).noneMatch(file -> file.contains("rehearsal"));
        marina.create("Buoy", "code", "B999");
    }

    @Test
    void itIsServedUntilItIsEndedOrTheNextOneBegins() throws Exception {
        draft(BUOY + "  more: { type: text }\n");

        var came = rehearsed();

        assertThat(came.stage()).as(came.toString()).isEqualTo(Stage.DONE);
        assertThat(came.served().place()).isEqualTo("/rehearsal");
        assertThat(came.served().until())
                .isEqualTo(Harness.CLOCK.instant().plus(Duration.ofDays(1)));
        assertThat(host.served.getFirst().changes()).isEqualTo(1);
        assertThat(Path.of(host.served.getFirst().data())).exists();
        assertThat(host.open).hasValue(1);
        assertThat(came.replay()).isNull();

        draft(BUOY + "  other: { type: text }\n");
        assertThat(rehearsed().served()).isNotNull();
        assertThat(host.served).hasSize(2);
        assertThat(host.open).hasValue(1);

        assertThat(rehearsals.end()).isTrue();
        assertThat(host.open).hasValue(0);
        var ended = rehearsals.last().orElseThrow();
        assertThat(ended.stage()).isEqualTo(Stage.DONE);
        assertThat(ended.served()).isNull();
        assertThat(ended.message()).isNull();
        assertThat(files()).noneMatch(file -> file.contains("rehearsal"));
    }

    @Test
    void whatWasRecordedIsPlayedOnACopyAsItWasAndOnTheServedOne() throws Exception {
        host.recorded = 12;
        draft(BUOY + "  more: { type: text }\n");

        var came = rehearsed();

        assertThat(came.replay().played()).isEqualTo(12);
        assertThat(host.before.data()).isNotEqualTo(host.served.getFirst().data());
        // It is of no use any more.
        assertThat(Path.of(host.before.data())).doesNotExist();
    }

    @Test
    void aReplayCanBeEnded() throws Exception {
        host.recorded = 1;
        host.endless = true;
        draft(BUOY + "  more: { type: text }\n");
        rehearsals.begin(Actor.SYSTEM);
        assertThat(host.replaying.await(20, TimeUnit.SECONDS)).isTrue();

        assertThat(rehearsals.end()).isTrue();

        var came = rehearsals.last().orElseThrow();
        assertThat(came.stage()).isEqualTo(Stage.STOPPED);
        assertThat(came.message()).isEqualTo("It was ended.");
        assertThat(host.open).hasValue(0);
        assertThat(files()).noneMatch(file -> file.matches(".*(rehearsal|before).*"));
    }

    @Test
    void aDiskThatIsFullIsToldAndTheLiveDataGoesOn() throws Exception {
        rehearsals.close();
        rehearsals =
                with(copy -> {
                    var real = SqliteStorage.open(copy, Harness.CLOCK);
                    var full =
                            instead(
                                    SchemaStorage.class,
                                    real.schema(),
                                    "apply",
                                    () -> {
                                        throw new StorageException(
                                                "The disk is full.", new IOException());
                                    });
                    return instead(Storage.class, real, "schema", () -> full);
                });
        draft(BUOY + "  more: { type: text }\n");

        var came = rehearsed();

        assertThat(came.stage()).isEqualTo(Stage.STOPPED);
        assertThat(came.message()).contains("The disk is full.");
        assertThat(files()).noneMatch(file -> file.contains("rehearsal"));
        marina.create("Buoy", "code", "B999");
    }

    @Test
    void aDraftWithoutChangesOrWithErrorsIsNotRehearsed() {
        assertThatThrownBy(() -> rehearsals.begin(Actor.SYSTEM))
                .hasMessageContaining("the same as the live release");
        draft("object: Buoy\nfields: { code: { type: txt } }\n");
        assertThatThrownBy(() -> rehearsals.begin(Actor.SYSTEM)).hasMessageContaining("has errors");
        assertThat(rehearsals.last()).isEmpty();
    }

    @Test
    void whatAKilledServiceLeftIsGoneAtTheNextStart() throws IOException {
        rehearsals.close();
        Files.writeString(folder.resolve("data.db.rehearsal"), "half a copy");
        Files.writeString(folder.resolve("data.db.rehearsal-wal"), "its log");

        rehearsals = with(copy -> SqliteStorage.open(copy, Harness.CLOCK));

        assertThat(files()).noneMatch(file -> file.contains("rehearsal"));
    }
}
