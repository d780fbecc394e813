package sandpiper.engine.service;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import sandpiper.engine.Yard;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.access.ServiceGrant;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.service.DeniedException.Reason;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType.Operation;

/** Each command against each grant, by way of a service and by way of a role. */
class RightsTest {
    private static final Yard YARD =
            Yard.with(
                    Map.of(
                            "services/desk.yaml",
                            """
                            service: desk
                            version: 1
                            functions: [Job.total]
                            resources:
                              jobs:
                                object: Job
                                where: size > 0
                                create: { fields: [code, size] }
                                read: { fields: [code, size, state] }
                                update: { fields: [size] }
                                query: { fields: [code, size] }
                                remove: true
                                calls: [finish, weigh]
                              notes:
                                object: Note
                                read: { fields: [text] }
                            """),
                    """
                    object: Job
                    key: code
                    lifecycle:
                      initial: Open
                      states: [Open, Done]
                      transitions:
                        finish: { from: Open, to: Done }
                    fields:
                      code: { type: text }
                      size: { type: integer, default: 1 }
                    functions:
                      weigh:
                        external: true
                        parameters: { by: { type: integer } }
                        body: |
                          set size = size + by
                      total:
                        external: true
                        on: object
                        returns: integer
                        body: |
                          return 1
                    """,
                    """
                    object: Note
                    fields:
                      text: { type: text }
                    """);

    private static Actor client(String... grants) {
        return new Actor(Actor.Kind.CLIENT, "desk", Set.of(), List.of(grants));
    }

    private static OpenedService desk(Actor actor) {
        return OpenedService.of(YARD.release, actor, "desk", 1, _ -> true, "REST");
    }

    private static OpenedResource jobs(String... grants) {
        return desk(client(grants)).resource("jobs");
    }

    private static void denies(Reason reason, ThrowingCallable call) {
        assertThatThrownBy(call)
                .isInstanceOfSatisfying(
                        DeniedException.class, e -> assertThat(e.reason()).isEqualTo(reason));
    }

    private static RecordCommand command(String name) {
        var job = YARD.object("Job");
        var tree = FieldTree.EMPTY;
        return switch (name) {
            case "create" -> new RecordCommand.Create(job, tree, Map.of());
            case "change" -> new RecordCommand.Change(job, tree, "J1", Map.of(), null);
            case "save" ->
                    new RecordCommand.Save(job, tree, tree, "J1", Map.of(), Map.of(), false, null);
            case "finish" -> new RecordCommand.Transit(job, "J1", "finish", null);
            case "weigh" -> new RecordCommand.Call(job, "J1", "weigh", Map.of(), null);
            case "total" -> new RecordCommand.Call(job, null, "total", Map.of(), null);
            case "remove" -> new RecordCommand.Remove(job, "J1", null);
            case "restore" -> new RecordCommand.Restore(job, "J1");
            default -> throw new IllegalArgumentException(name);
        };
    }

    /** The command, the grants it needs, the scope before and the scope after. */
    static Stream<Arguments> throughAService() {
        return Stream.of(
                Arguments.of("create", List.of("create"), List.of(), List.of("size < 9")),
                Arguments.of(
                        "change",
                        List.of("update"),
                        List.of("size < 9", "size > 0"),
                        List.of("size < 9")),
                Arguments.of(
                        "save",
                        List.of("create", "update"),
                        List.of("size < 9", "size > 0"),
                        List.of("size < 9", "size < 9")),
                Arguments.of(
                        "finish", List.of("finish"), List.of("size < 9", "size > 0"), List.of()),
                Arguments.of("weigh", List.of("weigh"), List.of("size < 9", "size > 0"), List.of()),
                Arguments.of(
                        "remove", List.of("remove"), List.of("size < 9", "size > 0"), List.of()));
    }

    @ParameterizedTest
    @MethodSource("throughAService")
    void throughAServiceItReachesWhatIsGrantedOfWhatIsShown(
            String name, List<String> needed, List<String> before, List<String> after) {
        var grants =
                needed.stream()
                        .map("desk/jobs/%s where size < 9"::formatted)
                        .toArray(String[]::new);

        var request = jobs(grants).request(command(name), false, null, Leave.NONE);

        assertThat(request.scope().conditions()).isEqualTo(before);
        assertThat(request.after().conditions()).isEqualTo(after);
        assertThat(request.via()).isEqualTo("desk v1");
    }

    @ParameterizedTest
    @MethodSource("throughAService")
    void withoutOneOfTheGrantsItIsDenied(
            String name, List<String> needed, List<String> before, List<String> after) {
        for (var missing : needed) {
            var grants =
                    Stream.concat(
                                    needed.stream().filter(one -> !one.equals(missing)),
                                    Stream.of("read", "query"))
                            .map("desk/jobs/%s"::formatted)
                            .toArray(String[]::new);
            denies(
                    Reason.NOT_GRANTED,
                    () -> jobs(grants).request(command(name), false, null, Leave.NONE));
        }
    }

    /** The command, the actions it needs, the scope before and the scope after. */
    static Stream<Arguments> throughARole() {
        var within = List.of("size < 9");
        return Stream.of(
                Arguments.of("create", List.of(Action.CREATE), List.of(), within),
                Arguments.of("change", List.of(Action.EDIT), within, within),
                Arguments.of(
                        "save",
                        List.of(Action.CREATE, Action.EDIT),
                        within,
                        List.of("size < 9", "size < 9")),
                Arguments.of("finish", List.of(Action.EDIT), within, List.of()),
                Arguments.of("weigh", List.of(Action.EDIT), within, List.of()),
                Arguments.of("remove", List.of(Action.RETIRE), within, List.of()),
                Arguments.of("restore", List.of(Action.RETIRE), within, List.of()));
    }

    private static OpenedObject opened(@Nullable String where, Action... actions) {
        var grant = new ObjectGrant("Job", Set.of(actions), where, List.of(), List.of());
        var ann =
                new Actor(
                        Actor.Kind.USER,
                        "ann",
                        Set.of(),
                        List.<ServiceGrant>of(),
                        actions.length == 0 ? List.of() : List.of(grant));
        return OpenedObject.of(YARD.release, ann, YARD.object("Job"));
    }

    @ParameterizedTest
    @MethodSource("throughARole")
    void throughARoleItReachesWhatIsGranted(
            String name, List<Action> needed, List<String> before, List<String> after) {
        var request =
                opened("size < 9", needed.toArray(Action[]::new))
                        .request(command(name), "console", false);

        assertThat(request.scope().conditions()).isEqualTo(before);
        assertThat(request.after().conditions()).isEqualTo(after);
    }

    @ParameterizedTest
    @MethodSource("throughARole")
    void withoutOneOfTheActionsItIsDenied(
            String name, List<Action> needed, List<String> before, List<String> after) {
        for (var missing : needed) {
            var others =
                    Stream.of(Action.values()).filter(one -> one != missing).toArray(Action[]::new);
            denies(
                    Reason.NOT_GRANTED,
                    () -> opened(null, others).request(command(name), "console", false));
        }
    }

    @Test
    void whatIsAboutNoRecordReachesNone() {
        assertThat(CommandRights.of(command("total")))
                .isEqualTo(new CommandRights(null, List.of()));
    }

    @Nested
    class Opening {
        @Test
        void aServiceIsNotThereForWhoMayNothingOfIt() {
            denies(Reason.UNKNOWN, () -> desk(client("other/jobs/read")));
            denies(
                    Reason.UNKNOWN,
                    () ->
                            OpenedService.of(
                                    YARD.release,
                                    client("desk/*/*"),
                                    "desk",
                                    2,
                                    _ -> true,
                                    "REST"));
        }

        @Test
        void aDesignerSeesItAndMayCallNothing() {
            var designer = new Actor(Actor.Kind.USER, "ann", Set.of(Duty.DESIGN), List.of());

            denies(
                    Reason.NOT_GRANTED,
                    () -> desk(designer).resource("jobs").require(Operation.READ));
        }

        @Test
        void aResourceThatIsNotThereIsAnsweredWithTheNearest() {
            assertThatThrownBy(() -> desk(client("desk/*/*")).resource("job"))
                    .hasMessageContaining("has no resource \"job\"")
                    .hasMessageContaining("Did you mean jobs?");
        }

        @Test
        void whatIsGrantedAndNotOfferedSaysSo() {
            denies(
                    Reason.NOT_OFFERED,
                    () -> desk(client("desk/*/*")).resource("notes").require(Operation.CREATE));
            denies(
                    Reason.NOT_GRANTED,
                    () ->
                            desk(client("desk/notes/read"))
                                    .resource("notes")
                                    .require(Operation.CREATE));
        }

        @Test
        void aCallThatIsNotThereIsAnsweredWithThoseThatAre() {
            assertThatThrownBy(() -> jobs("desk/*/*").call("stop"))
                    .hasMessageContaining("jobs has no call \"stop\". It has finish, weigh.");
        }

        @Test
        void aTransitionTakesNoValues() {
            var jobs = jobs("desk/*/*");

            denies(
                    Reason.MEANINGLESS,
                    () -> jobs.call(jobs.call("finish"), "J1", Map.of("by", 1L), null));
            assertThat(jobs.call(jobs.call("weigh"), "J1", Map.of("by", 1L), null))
                    .isInstanceOf(RecordCommand.Call.class);
        }

        @Test
        void aFunctionOfTheServiceNeedsAGrantOfItsOwn() {
            var total = desk(client("desk/jobs/read")).function("total");

            assertThat(total).isNotNull();
            denies(Reason.NOT_GRANTED, () -> desk(client("desk/jobs/read")).call(total, Map.of()));
            assertThat(desk(client("desk/functions/total")).call(total, Map.of()))
                    .isInstanceOf(RecordCommand.Call.class);
        }
    }

    @Nested
    class Answering {
        private List<String> names(FieldTree tree) {
            return tree.paths().stream().map(path -> path.written()).toList();
        }

        @Test
        void whoOnlyCreatesIsAnsweredWithTheKeyAndWhatCanBeGiven() {
            assertThat(names(jobs("desk/jobs/create").given())).containsExactly("code", "size");
        }

        @Test
        void aSingleRecordShowsWhatReadingShowsToWhoReadsAllThatIsFound() {
            assertThat(names(jobs("desk/jobs/*").alsoReadable()))
                    .containsExactly("code", "size", "state");
            assertThat(names(jobs("desk/jobs/query").alsoReadable())).isEmpty();
            assertThat(
                            names(
                                    jobs("desk/jobs/query", "desk/jobs/read where size < 9")
                                            .alsoReadable()))
                    .isEmpty();
            assertThat(
                            names(
                                    jobs(
                                                    "desk/jobs/query where size < 9",
                                                    "desk/jobs/read where size < 9")
                                            .alsoReadable()))
                    .isNotEmpty();
        }

        @Test
        void whatIsSeenIsWhatIsGrantedOfWhatIsShown() {
            assertThat(jobs("desk/jobs/read where size < 9").seen(Operation.READ))
                    .isEqualTo(new RecordScope(List.of("size < 9", "size > 0")));
            denies(Reason.NOT_GRANTED, () -> jobs("desk/jobs/read").seen(Operation.QUERY));
        }
    }
}
