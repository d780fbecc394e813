package sandpiper.engine.check;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.engine.Yard.messages;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.trace.TraceStep;

/** Steps from state to state: by transitions, by rules, and brought in with a state. */
class LifecyclesTest {
    private static final String JOB =
            """
            object: Job
            key: code
            lifecycle:
              initial: Asked
              states: [Asked, Begun, Done]
              transitions:
                begin: { from: Asked, to: Begun }
                restart: { from: Done, to: Begun }
                finish: { from: [Asked, Begun], to: Done }
            fields:
              code: { type: text }
              hand: { type: text }
              bill: { type: integer }
            checks:
              - { name: somebody, before: begin, that: hand != null, say: Who does it? }
              - { name: billed, before: [finish], that: bill > 0, say: What does it cost? }
            rules:
              free: { on: change of bill, when: bill = 1, then: transition finish }
            """;

    private static final String NOTE =
            "object: Note\nkey: code\nfields: { code: { type: text } }\n";

    private Yard yard;

    @BeforeEach
    void make() {
        yard = new Yard(JOB, NOTE);
        yard.create("Job", "code", "J");
        yard.create("Note", "code", "N");
    }

    private Object state() {
        return yard.value("Job", "J", "state");
    }

    private Outcome bring(String code, String state, Object... more) {
        var values = Yard.values(more);
        values.put("code", code);
        values.put("state", state);
        return yard.run(
                new Request(
                                new RecordCommand.Create(
                                        yard.object("Job"),
                                        yard.release.everythingOf(yard.object("Job")),
                                        values),
                                Actor.SYSTEM,
                                "import",
                                true)
                        .with(new Leave(true, false)));
    }

    @Test
    void aTransitionIsCheckedAndTaken() {
        assertThat(messages(yard.transit("Job", "J", "begin"))).containsExactly("Who does it?");
        assertThat(state()).isEqualTo("Asked");

        yard.change("Job", "J", "hand", "Ann");
        assertThat(yard.transit("Job", "J", "begin")).isInstanceOf(Outcome.Done.class);
        assertThat(state()).isEqualTo("Begun");
    }

    @Test
    void aChangeAloneIsNotCheckedForTransitions() {
        assertThat(yard.change("Job", "J", "bill", 0L)).isInstanceOf(Outcome.Done.class);
    }

    @Test
    void whereSeveralStatesLeadOnAllAreNamed() {
        yard.change("Job", "J", "bill", 5L);
        yard.transit("Job", "J", "finish");

        assertThat(messages(yard.transit("Job", "J", "finish")))
                .containsExactly(
                        "Finish is possible only when the Job is Asked or Begun; it is Done.");
    }

    @Test
    void aStepThatIsNoneIsAnsweredWithTheNearestOrAll() {
        assertThat(messages(yard.transit("Job", "J", "begn")))
                .containsExactly("Job has no transition \"begn\"; did you mean \"begin\"?");
        assertThat(messages(yard.transit("Job", "J", "explode")))
                .containsExactly(
                        "Job has no transition \"explode\"; it has begin, restart, finish.");
        assertThat(messages(yard.transit("Note", "N", "begin")))
                .containsExactly("Note has no lifecycle.");
    }

    @Test
    void whatComesWithAStateIsCheckedAsIfItHadComeThere() {
        assertThat(messages(bring("K", "Done"))).containsExactly("What does it cost?");
        assertThat(messages(bring("K", "Begun"))).containsExactly("Who does it?");
        assertThat(bring("K", "Begun", "hand", "Bo")).isInstanceOf(Outcome.Done.class);
        assertThat(yard.value("Job", "K", "state")).isEqualTo("Begun");
        assertThat(bring("L", "Asked")).isInstanceOf(Outcome.Done.class);
    }

    @Test
    void anAccountTellsTheStep() {
        yard.change("Job", "J", "hand", "Ann");
        assertThat(
                        yard.steps(
                                new RecordCommand.Transit(yard.object("Job"), "J", "begin", null),
                                TraceStep.Kind.TRANSITION))
                .extracting(step -> step.title() + " " + step.result())
                .containsExactly("begin Asked → Begun");
    }
}
