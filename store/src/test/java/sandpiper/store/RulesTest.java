package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.trace.TraceStep;

/** Checks, rules, lifecycles and what forms are told, on real storage. */
class RulesTest {
    private static final String TOTAL =
            """
            object: Pier
            key: code
            fields:
              code: { type: text, length: 10, required: true }
              open: { type: boolean, default: true }
              drawn: { type: integer, formula: sum(stays.power) }
              closings: { type: integer, default: 0 }
            rules:
              full:
                on: change of drawn
                when: drawn > 90 and open
                then: |
                  set open = false
                  set closings = closings + 1
                  note "Closed at {drawn}"
            """;
    private static final String STAY =
            """
            object: Stay
            key: number
            numbering: { field: number, pattern: "S-{sequence:4}" }
            fields:
              number: { type: text, length: 10 }
              pier: { type: reference, to: Pier, inverse: stays, offer: open }
              power: { type: integer, default: 1 }
              arrival: { type: date, required: true, readOnlyWhen: state = "Moored" }
              departure: { type: date, required: true }
              nights: { type: integer, formula: (departure - arrival) / @"P1D" }
              long: { type: boolean, default: false }
              approvedBy: { type: text, length: 20, requiredWhen: long and state != "Asked", hiddenWhen: not(long) }
            lifecycle:
              initial: Asked
              states: [Asked, Promised, Moored]
              transitions:
                promise: { from: Asked, to: Promised }
                moor: { from: Promised, to: Moored }
            checks:
              - { name: order, that: departure > arrival, say: "Departure after {arrival}, please.", at: departure }
              - { name: notTooLong, that: nights < 30, say: Very long., severity: warning, at: departure }
              - { name: soon, that: arrival >= @"2026-05-02", say: "Too late to promise.", before: promise, at: arrival }
            rules:
              longOne:
                on: change of nights
                when: nights > 14
                then: set long = true
              longTwo:
                on: change of long
                when: long
                then: |
                  create Note { about: number, text: "Stay " + number + " is long" } as made
                  warn "A note was made for {number}." at departure
            """;
    private static final String NOTE =
            """
            object: Note
            fields:
              about: { type: text, length: 20 }
              text: { type: text, length: 80 }
            """;

    @TempDir Path folder;
    private Harness harness;

    @BeforeEach
    void start() {
        harness = new Harness(folder).release(TOTAL, STAY, NOTE);
        harness.create("Pier", "code", "N");
    }

    @AfterEach
    void stop() {
        harness.close();
    }

    private static Outcome.Done done(Outcome outcome) {
        assertThat(outcome).as("%s", Harness.messages(outcome)).isInstanceOf(Outcome.Done.class);
        return (Outcome.Done) outcome;
    }

    private Outcome stay(String arrival, String departure) {
        return harness.create("Stay", "arrival", arrival, "departure", departure);
    }

    @Test
    void aCheckThatFailsNamesItsFieldAndKeepsNothing() {
        var refused = (Outcome.Refused) stay("2026-06-05", "2026-06-01");

        assertThat(refused.faults())
                .containsExactly(
                        new Fault(
                                FaultPath.of("departure"),
                                RecordCode.CHECK_FAILED,
                                "Departure after 2026-06-05, please."));
    }

    @Test
    void aWarningStopsNothing() {
        var made = done(stay("2026-06-01", "2026-07-15"));

        assertThat(made.warnings())
                .extracting(Fault::message)
                .containsExactlyInAnyOrder("Very long.", "A note was made for S-0001.");
    }

    @Test
    void aRuleReactsToWhatAnotherRuleSetAndToADerivedValue() {
        done(stay("2026-06-01", "2026-06-20"));

        assertThat(harness.text("Stay", "S-0001", "long")).isEqualTo("true");
        assertThat(harness.evaluate("Stay", "S-0001", "Note[about = this.number].text"))
                .isEqualTo("[\"Stay S-0001 is long\"]");
    }

    @Test
    void manyRowsSetOffARuleOnTheirTotalOnce() {
        var rows = new ArrayList<Map<String, @Nullable Object>>();
        for (int i = 0; i < 300; i++) {
            rows.add(
                    Harness.values(
                            "pier", "N", "arrival", "2026-06-01", "departure", "2026-06-02"));
        }

        var outcomes = harness.createTogether("Stay", rows);

        assertThat(outcomes).allMatch(outcome -> outcome instanceof Outcome.Done);
        assertThat(harness.text("Pier", "N", "drawn")).isEqualTo("300");
        assertThat(harness.text("Pier", "N", "open")).isEqualTo("false");
        assertThat(harness.text("Pier", "N", "closings")).isEqualTo("1");
        assertThat(harness.show("Pier", "N")).doesNotContainEntry("version", 3L);
    }

    @Test
    void ofManyRowsThoseThatAreWrongAreLeftOutAndTold() {
        var good = Harness.values("arrival", "2026-06-01", "departure", "2026-06-02");
        var bad = Harness.values("arrival", "2026-06-01", "departure", "2026-05-02");

        var outcomes = harness.createTogether("Stay", List.of(good, bad, good));

        assertThat(outcomes.get(0)).isInstanceOf(Outcome.Done.class);
        assertThat(Harness.messages(outcomes.get(1)))
                .containsExactly("Departure after 2026-06-01, please.");
        assertThat(outcomes.get(2)).isInstanceOf(Outcome.Done.class);
        assertThat(harness.evaluate("Pier", "N", "count(Stay)")).isEqualTo("2");
    }

    @Test
    void aReferenceOffersOnlyWhatFits() {
        harness.change("Pier", "N", "open", false);

        var refused =
                harness.create(
                        "Stay", "pier", "N", "arrival", "2026-06-01", "departure", "2026-06-02");

        assertThat(Harness.messages(refused))
                .singleElement()
                .asString()
                .contains("cannot be chosen here", "open");
    }

    @Test
    void aTransitionIsTakenOnlyFromItsStateAndWithItsChecks() {
        done(stay("2026-05-01", "2026-05-03"));

        assertThat(Harness.messages(harness.transit("Stay", "S-0001", "moor")))
                .singleElement()
                .asString()
                .contains("only when the Stay is Promised; it is Asked");
        assertThat(Harness.messages(harness.transit("Stay", "S-0001", "promise")))
                .containsExactly("Too late to promise.");
        assertThat(Harness.messages(harness.transit("Stay", "S-0001", "promis")))
                .singleElement()
                .asString()
                .contains("did you mean \"promise\"");

        harness.change("Stay", "S-0001", "arrival", "2026-05-02");
        done(harness.transit("Stay", "S-0001", "promise"));
        assertThat(harness.text("Stay", "S-0001", "state")).isEqualTo("Promised");
    }

    @Test
    void theStateIsNotChangedByHand() {
        done(stay("2026-06-01", "2026-06-03"));

        assertThat(Harness.messages(harness.change("Stay", "S-0001", "state", "Moored")))
                .containsExactly("State is changed by transitions: promise, moor.");
    }

    @Test
    void fieldsAreRequiredAndReadOnlyByState() {
        done(stay("2026-06-01", "2026-06-20"));

        assertThat(Harness.messages(harness.transit("Stay", "S-0001", "promise")))
                .singleElement()
                .asString()
                .startsWith("Approved by is required here");
        harness.change("Stay", "S-0001", "approvedBy", "Wenke");
        done(harness.transit("Stay", "S-0001", "promise"));
        done(harness.transit("Stay", "S-0001", "moor"));
        assertThat(Harness.messages(harness.change("Stay", "S-0001", "arrival", "2026-06-02")))
                .singleElement()
                .asString()
                .contains("cannot be changed now");
    }

    @Test
    void aFormIsToldWhatTheRecordWouldBeAndNothingIsKept() {
        var preview = harness.preview("Stay", "arrival", "2026-06-01", "departure", "2026-06-20");

        assertThat(preview.values()).containsEntry("nights", 19L).containsEntry("long", true);
        assertThat(Objects.requireNonNull(preview.fields().get("approvedBy")).hidden()).isFalse();
        assertThat(preview.faults()).isEmpty();
        assertThat(harness.evaluate("Pier", "N", "count(Stay)")).isEqualTo("0");
    }

    @Test
    void aRefusedRequestLeavesAnAccount() {
        harness.create("Stay", "arrival", "2026-06-05", "departure", "2026-06-01");

        var traces = harness.engine.traces();
        var trace = traces.find(traces.latest(10).getFirst().id()).orElseThrow();
        assertThat(trace.what()).isEqualTo("create Stay");
        assertThat(trace.steps())
                .anySatisfy(step -> {
                    assertThat(step.kind()).isEqualTo(TraceStep.Kind.CHECK);
                    assertThat(step.detail()).isEqualTo("departure > arrival");
                    assertThat(step.result()).isEqualTo("false");
                });
    }

    @Test
    void rulesThatGoRoundAreStoppedAndNamed() {
        harness.release(
                """
                object: Loop
                key: code
                fields:
                  code: { type: text, length: 5, required: true }
                  a: { type: integer, default: 0 }
                  b: { type: integer, default: 0 }
                rules:
                  ping: { on: change of a, then: set b = b + 1 }
                  pong: { on: change of b, then: set a = a + 1 }
                """,
                STAY,
                TOTAL,
                NOTE);

        var refused = (Outcome.Refused) harness.create("Loop", "code", "x", "a", 1L);

        assertThat(refused.faults())
                .singleElement()
                .satisfies(fault -> {
                    assertThat(fault.code()).isEqualTo(RecordCode.RULE_LOOP);
                    assertThat(fault.message()).contains("ping", "pong", "each other");
                });
    }

    @Test
    void aNewFormulaIsWorkedOutForRecordsThatAreThere() {
        done(stay("2026-06-01", "2026-06-03"));

        harness.release(
                TOTAL,
                STAY.replace(
                        "  long: {", "  weeks: { type: decimal, formula: nights / 7 }\n  long: {"),
                NOTE);

        assertThat(harness.text("Stay", "S-0001", "weeks")).isEqualTo("0.29");
        assertThat(harness.show("Stay", "S-0001")).containsEntry("long", false);
    }

    @Test
    void aTotalTooLargeForItsFieldIsRefused() {
        var refused =
                harness.create(
                        "Stay",
                        "pier",
                        "N",
                        "power",
                        9_007_199_254_740_991L,
                        "arrival",
                        "2026-06-01",
                        "departure",
                        "2026-06-02");
        var more =
                harness.create(
                        "Stay",
                        "pier",
                        "N",
                        "power",
                        9_007_199_254_740_991L,
                        "arrival",
                        "2026-06-01",
                        "departure",
                        "2026-06-02");

        assertThat(refused).isInstanceOf(Outcome.Done.class);
        assertThat(Harness.messages(more)).isNotEmpty();
    }

    @Test
    void aRuleSeesThatAFieldCameBackToItsFirstValue() {
        harness.release(
                """
                object: Boat
                key: code
                fields:
                  code: { type: text, length: 10, required: true }
                  size: { type: integer, default: 1 }
                  colour: { type: choice, choices: [red, blue], default: red }
                rules:
                  paint:
                    on: change of size
                    when: size > 100
                    then: set colour = (if colour = "red" then "blue" else "red")
                  grow:
                    on: change of colour
                    when: size > 100
                    then: set size = size + 1
                """);
        harness.create("Boat", "code", "B");

        assertThat(Harness.messages(harness.change("Boat", "B", "size", 200L)))
                .containsExactly(
                        "The rules paint, grow of Boat keep setting each other off; they were"
                                + " stopped after 10 times.");
    }
}
