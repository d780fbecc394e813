package sandpiper.engine.check;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.engine.Yard.faults;
import static sandpiper.engine.Yard.messages;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.Request;
import sandpiper.engine.write.RecordWrites;

/** What must hold of a record, when it is looked at, and how it is said. */
class ChecksTest {
    private static final String BERTH =
            """
            object: Berth
            key: code
            fields:
              code: { type: text }
              open: { type: boolean, default: true }
              length: { type: integer, default: 10 }
            """;

    private static final String STAY =
            """
            object: Stay
            key: code
            lifecycle:
              initial: Planned
              states: [Planned, There, Gone]
              transitions:
                arrive: { from: Planned, to: There }
                leave: { from: There, to: Gone }
            fields:
              code: { type: text }
              slip: { type: text, unique: true }
              berth: { type: reference, to: Berth, offer: item.open }
              length: { type: integer, default: 5 }
              reason: { type: text, requiredWhen: length > 20, hiddenWhen: state = "Gone" }
              agreed: { type: boolean, default: false, readOnlyWhen: state = "There" }
            parts:
              lines:
                label: Lines
                readOnlyWhen: state = "Gone"
                fields:
                  price: { type: integer, required: true }
                  why: { type: text, requiredWhen: price > 100 }
                checks:
                  - name: priced
                    that: price >= 0
                    say: Not below zero.
                    at: price
            checks:
              - name: fits
                that: berth = null or length <= berth.length
                say: Too long by {length - berth.length}.
                at: length
              - name: unusual
                that: length < 30
                say: That is long.
                severity: warning
              - name: agreedFirst
                before: arrive
                that: agreed
                say: Agree first.
            """;

    private Yard yard;

    @BeforeEach
    void make() {
        yard = new Yard(BERTH, STAY);
        yard.create("Berth", "code", "B1");
        yard.create("Berth", "code", "B2", "open", false);
    }

    private List<String> said(Outcome outcome) {
        return faults(outcome).stream()
                .map(fault -> fault.path() + " " + fault.code() + " " + fault.message())
                .toList();
    }

    @Test
    void aCheckIsSaidInItsWordsAtItsField() {
        assertThat(said(yard.create("Stay", "code", "S1", "berth", "B1", "length", 14L)))
                .containsExactly("length CHECK_FAILED Too long by 4.");
    }

    @Test
    void aCheckOfLineItemsIsMadeOfEach() {
        var outcome =
                yard.create(
                        "Stay",
                        "code",
                        "S1",
                        "lines",
                        List.of(Map.of("price", 1L), Map.of("price", -1L), Map.of("price", -2L)));

        assertThat(said(outcome))
                .containsExactly(
                        "lines.1.price CHECK_FAILED Not below zero.",
                        "lines.2.price CHECK_FAILED Not below zero.");
    }

    @Test
    void aWarningKeepsNothingBack() {
        var outcome = yard.create("Stay", "code", "S1", "length", 40L, "reason", "long one");

        assertThat(((Outcome.Done) outcome).warnings())
                .extracting(fault -> fault.message())
                .containsExactly("That is long.");
    }

    @Test
    void aCheckBeforeAStepIsMadeOnlyThen() {
        assertThat(yard.create("Stay", "code", "S1")).isInstanceOf(Outcome.Done.class);

        assertThat(messages(yard.transit("Stay", "S1", "arrive"))).containsExactly("Agree first.");
        yard.change("Stay", "S1", "agreed", true);
        assertThat(yard.transit("Stay", "S1", "arrive")).isInstanceOf(Outcome.Done.class);
    }

    @Test
    void aStepIsTakenFromItsStatesOnly() {
        yard.create("Stay", "code", "S1");

        assertThat(messages(yard.transit("Stay", "S1", "leave")))
                .containsExactly("Leave is possible only when the Stay is There; it is Planned.");
        assertThat(messages(yard.transit("Stay", "S1", "leaf")))
                .containsExactly("Stay has no transition \"leaf\"; did you mean \"leave\"?");
    }

    @Test
    void whatIsRequiredSometimesSaysWhen() {
        assertThat(said(yard.create("Stay", "code", "S1", "length", 25L)))
                .containsExactly("reason REQUIRED Reason is required here, because length > 20.");
    }

    @Test
    void whatIsRequiredOfLineItemsIsSaidAtEach() {
        var outcome =
                yard.create(
                        "Stay",
                        "code",
                        "S1",
                        "lines",
                        List.of(Map.of("price", 101L), Map.of("price", 5L)));

        assertThat(said(outcome))
                .containsExactly("lines.0.why REQUIRED Why is required here, because price > 100.");
        assertThat(said(yard.create("Stay", "code", "S1", "lines", List.of(Map.of("why", "x")))))
                .containsExactly("lines.0.price REQUIRED Price is required.");
    }

    @Test
    void onlyWhatIsOfferedCanBeChosen() {
        assertThat(said(yard.create("Stay", "code", "S1", "berth", "B2")))
                .containsExactly(
                        "berth NOT_OFFERED Berth: Berth \"B2\" cannot be chosen here, because"
                                + " this does not hold: item.open.");
    }

    @Test
    void whatWasChosenOnceIsNotJudgedAgain() {
        yard.create("Stay", "code", "S1", "berth", "B1");
        yard.change("Berth", "B1", "open", false);

        assertThat(yard.change("Stay", "S1", "length", 6L)).isInstanceOf(Outcome.Done.class);
    }

    @Test
    void whatIsReadOnlyNowSaysWhy() {
        yard.create("Stay", "code", "S1", "agreed", true);
        yard.transit("Stay", "S1", "arrive");

        assertThat(said(yard.change("Stay", "S1", "agreed", false)))
                .containsExactly(
                        "agreed READ_ONLY_NOW Agreed cannot be changed now, because state ="
                                + " \"There\".");
        assertThat(yard.change("Stay", "S1", "agreed", true)).isInstanceOf(Outcome.Done.class);
    }

    @Test
    void linesThatAreFixedStayAsTheyAre() {
        yard.create("Stay", "code", "S1", "agreed", true, "lines", List.of(Map.of("price", 1L)));
        yard.transit("Stay", "S1", "arrive");
        yard.transit("Stay", "S1", "leave");

        assertThat(said(yard.change("Stay", "S1", "lines", List.of(Map.of("price", 2L)))))
                .containsExactly(
                        "lines READ_ONLY_NOW Lines cannot be changed now, because state ="
                                + " \"Gone\".");
        assertThat(yard.change("Stay", "S1", "lines", List.of(Map.of("price", 1L))))
                .isInstanceOf(Outcome.Done.class);
    }

    @Test
    void aStateComesByItsStepsAlone() {
        assertThat(said(yard.create("Stay", "code", "S1", "state", "There")))
                .singleElement()
                .asString()
                .startsWith("state NOT_WRITABLE State of a new Stay is Planned");
    }

    @Test
    void twoNewRecordsOfOnePieceOfWorkDoNotShareWhatIsUnique() {
        var requests =
                List.of(
                        creating("S1", "slip", "A"),
                        creating("S2", "slip", "A"),
                        creating("S3", "slip", "B"));

        var outcomes =
                yard.writes.write(
                        yard.live,
                        yard.transaction,
                        requests,
                        Grouping.TOGETHER,
                        RecordWrites.TurnListener.NONE);

        assertThat(outcomes.get(2)).isInstanceOf(Outcome.Done.class);
        assertThat(outcomes.subList(0, 2))
                .anySatisfy(one ->
                        assertThat(faults(one))
                                .extracting(fault -> fault.code())
                                .contains(RecordCode.NOT_UNIQUE));
    }

    private Request creating(String code, Object... more) {
        var all = new Object[more.length + 2];
        all[0] = "code";
        all[1] = code;
        System.arraycopy(more, 0, all, 2, more.length);
        return new Request(
                yard.creating("Stay", all), sandpiper.engine.access.Actor.SYSTEM, "test", false);
    }
}
