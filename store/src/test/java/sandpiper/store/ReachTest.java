package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;

/** Who sees some records under a condition neither refers to others nor learns of them. */
class ReachTest {
    private static final String ACCOUNT =
            """
            object: Account
            key: [region, code]
            fields:
              region: { type: text, length: 5, required: true }
              code: { type: text, length: 10, required: true }
              parent: { type: reference, to: Account, inverse: children }
            """;
    private static final String MOVE =
            """
            object: Move
            key: number
            fields:
              number: { type: text, length: 10, required: true }
              account: { type: reference, to: Account, inverse: moves }
              urgent: { type: boolean }
            parts:
              lines:
                fields:
                  against: { type: reference, to: Account }
            functions:
              take:
                external: true
                parameters: { from: { type: reference, to: Account } }
                body: set account = from
            """;
    private static final String SERVICE =
            """
            service: desk
            version: 1
            resources:
              accounts: { object: Account, read: { fields: all }, update: { fields: all } }
              moves: { object: Move, read: { fields: all }, create: { fields: all } }
            """;

    private static final Actor CLIENT =
            new Actor(
                    Actor.Kind.CLIENT,
                    "north",
                    Set.of(),
                    List.of("desk/accounts/* where region = \"N\"", "desk/moves/*"));
    private static final Actor PERSON =
            new Actor(
                    Actor.Kind.USER,
                    "nora",
                    Set.of(),
                    List.of(),
                    List.of(
                            new ObjectGrant(
                                    "Account",
                                    Set.of(Action.VIEW, Action.EDIT),
                                    "region = \"N\"",
                                    List.of(),
                                    List.of()),
                            new ObjectGrant(
                                    "Move",
                                    Set.of(Action.VIEW, Action.EDIT, Action.CREATE),
                                    null,
                                    List.of(),
                                    List.of())));

    @TempDir Path folder;

    private Harness marina;

    @BeforeEach
    void start() {
        marina =
                new Harness(folder)
                        .release(
                                Map.of(
                                        "desk/package.yaml", "package: desk\nversion: 1.0\n",
                                        "desk/objects/account.yaml", ACCOUNT,
                                        "desk/objects/move.yaml", MOVE,
                                        "desk/services/desk.yaml", SERVICE));
        marina.create("Account", "region", "N", "code", "1");
        marina.create("Account", "region", "N", "code", "2");
        marina.create("Account", "region", "S", "code", "1");
    }

    @AfterEach
    void stop() {
        marina.close();
    }

    private Outcome write(
            Actor actor,
            RecordScope after,
            boolean textual,
            String object,
            @Nullable String key,
            @Nullable Object... values) {
        return marina.engine
                .records()
                .write(live -> {
                    var type = live.release().object(object);
                    var tree = live.release().everythingOf(type);
                    var given = Harness.values(values);
                    return new Request(
                            key == null
                                    ? new RecordCommand.Create(type, tree, given)
                                    : new RecordCommand.Change(type, tree, key, given, null),
                            actor,
                            "test",
                            textual,
                            false,
                            null,
                            RecordScope.ALL,
                            after,
                            false,
                            Leave.NONE);
                });
    }

    private List<String> said(
            Actor actor, String object, @Nullable String key, @Nullable Object... values) {
        return Harness.messages(write(actor, RecordScope.ALL, false, object, key, values));
    }

    @Test
    void whatIsBeyondTheConditionIsNotThereToReferTo() {
        for (var actor : List.of(CLIENT, PERSON)) {
            var name = actor.name();
            assertThat(said(actor, "Account", "N,1", "parent", "S,1"))
                    .as(name)
                    .containsExactly("Parent: there is no Account \"S,1\".");
            assertThat(said(actor, "Account", "N,1", "parent", "S,9"))
                    .containsExactly("Parent: there is no Account \"S,9\".");
            assertThat(said(actor, "Account", "N,1", "parent", "N,2")).isEmpty();
            assertThat(said(actor, "Move", null, "number", name, "account", "S,1")).hasSize(1);
            assertThat(
                            said(
                                    actor,
                                    "Move",
                                    null,
                                    "number",
                                    name,
                                    "lines",
                                    List.of(Map.of("against", "S,1"))))
                    .containsExactly("Against: there is no Account \"S,1\".");
            assertThat(said(actor, "Move", null, "number", name, "account", "N,2")).isEmpty();
            assertThat(Harness.messages(marina.call(actor, "Move", name, "take", "from", "S,1")))
                    .containsExactly("From: there is no Account \"S,1\".");
            assertThat(
                            Harness.messages(
                                    write(
                                            actor,
                                            RecordScope.ALL,
                                            true,
                                            "Move",
                                            name,
                                            "account",
                                            "S,1")))
                    .as("from a file")
                    .containsExactly("Account: there is no Account \"S,1\".");
        }
    }

    @Test
    void whatStandsThereAlreadyMayStay() {
        marina.create("Move", "number", "M1", "account", "S,1");
        for (var actor : List.of(CLIENT, PERSON)) {
            assertThat(said(actor, "Move", "M1", "account", "S,1", "urgent", true)).isEmpty();
        }
        assertThat(marina.text("Move", "M1", "urgent")).isEqualTo("true");
    }

    @Test
    void whoSeesNoneOfAnObjectKnowsItByItsKeys() {
        var clerk =
                new Actor(
                        Actor.Kind.CLIENT,
                        "clerk",
                        Set.of(),
                        List.of("desk/moves/create", "desk/moves/read"));
        assertThat(said(clerk, "Move", null, "number", "M2", "account", "S,1")).isEmpty();
    }

    @Test
    void ofWhatIsNotGrantedAndWhatIsNotThereTheSameIsTold() {
        var clerk = new Actor(Actor.Kind.CLIENT, "clerk", Set.of(), List.of("desk/moves/*"));
        var north = RecordScope.ALL.and("account.region = \"N\"");
        var beyond = write(clerk, north, false, "Move", null, "number", "M3", "account", "S,1");
        var nowhere = write(clerk, north, false, "Move", null, "number", "M3", "account", "S,9");

        assertThat(beyond).isInstanceOf(Outcome.Refused.class);
        assertThat(Harness.messages(nowhere)).isEqualTo(Harness.messages(beyond));
        assertThat(((Outcome.Refused) nowhere).reason())
                .isEqualTo(((Outcome.Refused) beyond).reason());
        assertThat(
                        Harness.messages(
                                write(
                                        clerk, north, false, "Move", null, "number", "M3",
                                        "account", "N,1")))
                .isEmpty();
    }

    @Test
    void anAnswerIsGivenAgainToWhoMayDoTheSameAsThen() {
        var wide = new Actor(Actor.Kind.CLIENT, "north", Set.of(), List.of("desk/moves/*"));
        assertThat(once(wide)).isInstanceOf(Outcome.Success.class);
        assertThat(once(wide)).isEqualTo(new Outcome.Repeated("answer"));
        assertThat(Harness.messages(once(CLIENT)))
                .singleElement()
                .asString()
                .startsWith("This request was done before. What is granted to you has changed");
        assertThat(marina.keys("Move", "number = \"M4\"")).hasSize(1);
    }

    private Outcome once(Actor actor) {
        return marina.engine
                .records()
                .write(live -> {
                    var type = live.release().object("Move");
                    return new Request(
                            new RecordCommand.Create(
                                    type,
                                    live.release().everythingOf(type),
                                    Harness.values("number", "M4")),
                            actor,
                            "test",
                            false,
                            false,
                            new Request.Once("key", "print", (_, _) -> "answer"));
                });
    }
}
