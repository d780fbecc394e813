package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.BiFunction;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.RunStorage;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.release.ObjectType;

/** What comes of requests does not depend on how many of them come at once. */
class WaysToWriteTest {
    private static final String CRANE =
            """
            object: Crane
            key: code
            removal: delete
            fields:
              code: { type: text }
              lifts: { type: integer, default: 0 }
            functions:
              lift:
                parameters:
                  many: { type: integer, required: true }
                body: |
                  require many <= 10 else reject "Too many at once."
                  set lifts = lifts + many
            """;

    @TempDir Path folder;
    private Harness yard;

    @BeforeEach
    void open() {
        yard = new Harness(folder).release(CRANE);
        yard.create("Crane", "code", "K1");
        yard.create("Crane", "code", "K2");
    }

    @AfterEach
    void close() {
        yard.close();
    }

    private static Function<LiveRelease, Request> asking(
            BiFunction<LiveRelease, ObjectType, RecordCommand> command,
            Request.@Nullable Once once) {
        return live ->
                new Request(
                        command.apply(live, live.release().object("Crane")),
                        Actor.SYSTEM,
                        "test",
                        false,
                        false,
                        once);
    }

    private static Function<LiveRelease, Request> lift(String key, long many) {
        return asking(
                (_, crane) ->
                        new RecordCommand.Call(crane, key, "lift", Map.of("many", many), null),
                null);
    }

    private static Function<LiveRelease, Request> remove(String key) {
        return asking((_, crane) -> new RecordCommand.Remove(crane, key, null), null);
    }

    private List<RunStorage.Run> runs() {
        // What was refused is noted after the answer, by the same thread that notes this.
        yard.create("Crane", "code", "K" + (3 + Math.random()));
        return yard.engine
                .records()
                .read((_, session) ->
                        yard.storage
                                .runs()
                                .latest(session, new RunStorage.RunFilter("", "", null, 50)));
    }

    private List<String> lifts() {
        return List.of(yard.text("Crane", "K1", "lifts"), yard.text("Crane", "K2", "lifts"));
    }

    @ParameterizedTest
    @EnumSource
    void everyFunctionThatRanIsInTheLogOfRuns(Grouping grouping) {
        var outcomes = yard.engine.records().write(List.of(lift("K1", 2), lift("K2", 3)), grouping);

        assertThat(outcomes).hasSize(2).allMatch(Outcome.Success.class::isInstance);
        assertThat(lifts()).containsExactly("2", "3");
        assertThat(runs())
                .extracting(RunStorage.Run::name, RunStorage.Run::key, RunStorage.Run::done)
                .containsExactlyInAnyOrder(
                        org.assertj.core.groups.Tuple.tuple("Crane.lift", "K1", true),
                        org.assertj.core.groups.Tuple.tuple("Crane.lift", "K2", true));
    }

    @ParameterizedTest
    @EnumSource
    void whatIsRefusedIsInTheLogAndLeavesNothingBehind(Grouping grouping) {
        var outcomes =
                yard.engine.records().write(List.of(lift("K1", 2), lift("K2", 30)), grouping);

        assertThat(Harness.messages(outcomes.get(1))).containsExactly("Too many at once.");
        boolean allOrNone = grouping == Grouping.ALL_OR_NONE;
        assertThat(lifts()).containsExactly(allOrNone ? "0" : "2", "0");
        assertThat(runs())
                .filteredOn(run -> run.key().equals("K2"))
                .singleElement()
                .satisfies(run -> {
                    assertThat(run.done()).isFalse();
                    assertThat(run.said()).isEqualTo("Too many at once.");
                });
        assertThat(runs()).filteredOn(RunStorage.Run::done).hasSize(allOrNone ? 0 : 1);
    }

    @ParameterizedTest
    @EnumSource
    void aRequestWithAKeyOfItsOwnIsDoneOnce(Grouping grouping) {
        var once = new Request.Once("k-1", "lift", (_, _) -> "lifted");
        Function<LiveRelease, Request> request =
                asking(
                        (_, crane) ->
                                new RecordCommand.Call(
                                        crane, "K1", "lift", Map.of("many", 2L), null),
                        once);

        yard.engine.records().write(List.of(request), grouping);
        var again = yard.engine.records().write(List.of(request), grouping);

        assertThat(again).containsExactly(new Outcome.Repeated("lifted"));
        assertThat(lifts()).containsExactly("2", "0");
    }

    @ParameterizedTest
    @EnumSource
    void whatIsDeletedForGoodIsGoneAndTheOthersAreDone(Grouping grouping) {
        var outcomes = yard.engine.records().write(List.of(lift("K1", 4), remove("K2")), grouping);

        assertThat(outcomes).hasSize(2).allMatch(Outcome.Success.class::isInstance);
        assertThat(yard.keys("Crane", "lifts >= 0")).containsExactly("K1");
        assertThat(yard.text("Crane", "K1", "lifts")).isEqualTo("4");
    }

    @ParameterizedTest
    @EnumSource
    void eachChangeIsToldBeforeItIsDurable(Grouping grouping) {
        var told = new ArrayList<Integer>();

        yard.engine
                .records()
                .write(
                        List.of(lift("K1", 2), lift("K2", 30)),
                        grouping,
                        (place, _, _, _) -> told.add(place));

        assertThat(told).containsExactly(0);
    }

    @Test
    void theAccountOfARefusalAmongSeveralCanBeReadAfterwards() {
        var outcomes =
                yard.engine
                        .records()
                        .write(List.of(lift("K1", 2), lift("K2", 30)), Grouping.ALL_OR_NONE);

        var trace = ((Outcome.Refused) outcomes.get(1)).trace();
        assertThat(Objects.requireNonNull(trace).what()).isEqualTo("lift Crane K2");
    }

    @Test
    void ofAGroupThatIsUndoneNoAccountSaysThatSomethingWasDone() {
        Function<LiveRelease, Request> asked =
                live ->
                        new Request(
                                lift("K1", 2).apply(live).command(),
                                Actor.SYSTEM,
                                "test",
                                false,
                                true,
                                null);

        yard.engine.records().write(List.of(asked, lift("K2", 30)), Grouping.ALL_OR_NONE);

        assertThat(yard.engine.traces().latest(10))
                .extracting(trace -> trace.what() + " " + trace.outcome())
                .containsExactly("lift Crane K2 refused");
    }
}
