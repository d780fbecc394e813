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
import sandpiper.engine.access.Duty;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.release.LiveRelease;

/** Who may set what, and when: states, read-only fields, line items, records in use. */
class WhoMaySetTest {
    private static final String BERTH =
            """
            object: Berth
            key: code
            fields:
              code: { type: text, length: 10, required: true }
              depth: { type: decimal }
            """;
    private static final String BUOY =
            """
            object: Buoy
            key: code
            removal: { retire: refuse }
            fields:
              code: { type: text, length: 10, required: true }
            """;
    private static final String VISIT =
            """
            object: Visit
            key: code
            fields:
              code: { type: text, length: 10, required: true }
              berth: { type: reference, to: Berth, inverse: visits, offer: { that: depth > this.draught, say: "{code} is too shallow for {this.draught} m." } }
              buoy: { type: reference, to: Buoy, inverse: visits }
              draught: { type: decimal }
              seal: { type: text, readOnly: true }
              never: { type: text, readOnlyWhen: "true" }
              paid: { type: boolean, default: false }
              due: { type: date, readOnlyWhen: { that: paid, say: "{code} is paid; its date stays." }, requiredWhen: { that: draught > 9, say: "Deep ships need a date." } }
            parts:
              charges:
                readOnlyWhen: { that: paid, say: "The charges of {code} are paid." }
                fields:
                  what: { type: text }
                  fixed: { type: boolean }
                  price: { type: amount, readOnlyWhen: fixed }
                  mark: { type: text, readOnly: true }
            lifecycle:
              initial: Asked
              states: [Asked, Here, Gone]
              transitions:
                come: { from: Asked, to: Here }
                leave: { from: Here, to: Gone }
            checks:
              - { that: berth != null, say: "Needs a berth.", before: come }
            functions:
              stamp:
                external: true
                body: |
                  set seal = "ok"
                  set never = "set"
              dismiss:
                external: true
                body: retire buoy
            """;

    private static final Actor CLERK =
            new Actor(Actor.Kind.USER, "clerk", Set.of(Duty.RECORDS), List.of());

    @TempDir Path folder;

    private Harness marina;

    @BeforeEach
    void start() {
        marina = new Harness(folder).release(BERTH, BUOY, VISIT);
        marina.create("Berth", "code", "B1", "depth", 5L);
        marina.create("Buoy", "code", "Y1");
    }

    @AfterEach
    void stop() {
        marina.close();
    }

    private interface Command {
        RecordCommand of(LiveRelease live, sandpiper.model.release.ObjectType type);
    }

    private Outcome write(String object, Leave leave, boolean textual, Command command) {
        return marina.engine
                .records()
                .write(live ->
                        new Request(
                                        command.of(live, live.release().object(object)),
                                        CLERK,
                                        "test",
                                        textual)
                                .with(leave));
    }

    private List<String> create(Leave leave, @Nullable Object... values) {
        return Harness.messages(
                write(
                        "Visit",
                        leave,
                        false,
                        (live, type) ->
                                new RecordCommand.Create(
                                        type,
                                        live.release().everythingOf(type),
                                        Harness.values(values))));
    }

    private List<String> change(String key, @Nullable Object... values) {
        return Harness.messages(
                write(
                        "Visit",
                        Leave.NONE,
                        false,
                        (live, type) ->
                                new RecordCommand.Change(
                                        type,
                                        live.release().everythingOf(type),
                                        key,
                                        Harness.values(values),
                                        null)));
    }

    @Test
    void aStateIsGivenOnlyWithDataFromElsewhereAndItsChecksHold() {
        assertThat(create(Leave.NONE, "code", "V1", "state", "Here"))
                .containsExactly("State of a new Visit is Asked; it is changed by transitions.");
        assertThat(create(Leave.NONE, "code", "V1", "state", "Asked")).isEmpty();
        var whole = new Leave(true, false);
        assertThat(create(whole, "code", "V2", "state", "Here")).containsExactly("Needs a berth.");
        assertThat(create(whole, "code", "V2", "state", "Here", "berth", "B1", "draught", 2L))
                .isEmpty();
        assertThat(create(whole, "code", "V3", "state", "Gone")).isEmpty();
    }

    @Test
    void aReadOnlyFieldIsSetByLogicAlone() {
        assertThat(create(Leave.NONE, "code", "V1", "seal", "x"))
                .containsExactly("Seal is set by the service alone and cannot be given.");
        assertThat(create(Leave.NONE, "code", "V1", "seal", null)).isEmpty();
        assertThat(change("V1", "seal", "x")).hasSize(1);
        assertThat(Harness.messages(marina.call(CLERK, "Visit", "V1", "stamp"))).isEmpty();
        assertThat(marina.text("Visit", "V1", "seal")).isEqualTo("ok");
        // The same again is no change.
        assertThat(change("V1", "seal", "ok", "draught", 1L)).isEmpty();
        assertThat(create(new Leave(true, false), "code", "V2", "seal", "x")).isEmpty();
    }

    @Test
    void whatIsAlwaysReadOnlyIsSoOnCreationToo() {
        assertThat(create(Leave.NONE, "code", "V1", "never", "x"))
                .containsExactly("Never cannot be changed.");
        assertThat(create(Leave.NONE, "code", "V1")).isEmpty();
        assertThat(change("V1", "never", "x")).containsExactly("Never cannot be changed.");
    }

    @Test
    void conditionsHoldInLinesAndForWholeParts() {
        var lines =
                List.of(
                        Map.of("what", "power", "price", 5L, "fixed", true),
                        Map.of("what", "water", "price", 2L));
        assertThat(create(Leave.NONE, "code", "V1", "charges", lines)).isEmpty();

        assertThat(
                        change(
                                "V1",
                                "charges",
                                List.of(
                                        Map.of("line", 1L, "price", 9L),
                                        Map.of("line", 2L, "price", 9L))))
                .containsExactly("Price cannot be changed now, because fixed.");
        assertThat(create(Leave.NONE, "code", "V2", "charges", List.of(Map.of("mark", "x"))))
                .containsExactly("Mark is set by the service alone and cannot be given.");
        assertThat(change("V1", "paid", true)).isEmpty();
        assertThat(change("V1", "charges", List.of()))
                .containsExactly("The charges of V1 are paid.");
        assertThat(change("V1", "charges", List.of(Map.of("line", 1L), Map.of("line", 2L))))
                .isEmpty();
    }

    @Test
    void conditionsHaveTextsOfTheirOwn() {
        assertThat(create(Leave.NONE, "code", "V1", "draught", 10L))
                .containsExactly("Deep ships need a date.");
        assertThat(create(Leave.NONE, "code", "V1", "draught", 6L, "berth", "B1"))
                .containsExactly("B1 is too shallow for 6 m.");
        assertThat(create(Leave.NONE, "code", "V1", "paid", true)).isEmpty();
        assertThat(change("V1", "due", "2026-05-01"))
                .containsExactly("V1 is paid; its date stays.");
    }

    @Test
    void whatOthersUseIsNotRetiredUnasked() {
        create(Leave.NONE, "code", "V1", "berth", "B1", "buoy", "Y1", "draught", 2L);

        Command retireBerth = (_, type) -> new RecordCommand.Remove(type, "B1", null);
        assertThat(Harness.messages(write("Berth", Leave.NONE, false, retireBerth)))
                .singleElement()
                .asString()
                .startsWith("This Berth is used by 1 Visit; it is retired when you say");
        var used = new Leave(false, true);
        assertThat(write("Berth", used, false, retireBerth)).isInstanceOf(Outcome.Done.class);
        Command retireBuoy = (_, type) -> new RecordCommand.Remove(type, "Y1", null);
        assertThat(Harness.messages(write("Buoy", used, false, retireBuoy)))
                .containsExactly("This Buoy is used by 1 Visit and cannot be retired.");
        assertThat(Harness.messages(marina.call(CLERK, "Visit", "V1", "dismiss")))
                .containsExactly("This Buoy is used by 1 Visit and cannot be retired.");
    }
}
