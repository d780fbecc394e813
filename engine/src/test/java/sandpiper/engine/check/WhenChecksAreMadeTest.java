package sandpiper.engine.check;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.engine.Yard.messages;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.trace.TraceStep;

/** Which change sets off which check, and what its definition has people told. */
class WhenChecksAreMadeTest {
    private static final String CRANE =
            """
            object: Crane
            key: code
            fields:
              code: { type: text }
              load: { type: integer, default: 0 }
              reach: { type: integer, default: 0 }
              note: { type: text }
              sealed: { type: text, readOnlyWhen: "true", default: wax }
              plate: { type: text, readOnlyWhen: { that: load > 50, say: "Unload {code} first." } }
              why:
                type: text
                requiredWhen: { that: load > 90, say: "Say why {load} is lifted." }
                hiddenWhen: note = "quiet"
            parts:
              hooks:
                readOnlyWhen: { that: note = "tied", say: "The hooks of {code} are tied." }
                fields: { size: { type: integer, default: 1 } }
            checks:
              - { name: born, on: create, that: load < 100, say: Too heavy to begin with. }
              - { name: lifted, on: change, that: reach < 100, say: Too far. }
              - { name: gone, on: retire, that: load = 0, say: Something hangs on it. }
              - { name: noted, on: change of note, that: note != "no", say: Not that note. }
              - { name: hooked, on: change of hooks, that: count(hooks) < 3, say: Three hooks. }
              - { name: both, on: create or change of load, that: load != 13, say: Not thirteen. }
              - { name: steady, on: change, that: load >= old.load - 10, say: Too fast. }
            """;

    private static final String PIER =
            """
            object: Pier
            key: code
            fields:
              code: { type: text }
              wide: { type: integer, default: 9 }
              boats: { type: integer, formula: count(berths) }
            checks:
              - { name: room, that: boats <= wide, say: "{code} is full." }
              - { name: wideEnough, that: wide > 0, say: Not that narrow. }
            """;

    private static final String BERTH =
            """
            object: Berth
            key: code
            fields:
              code: { type: text }
              deep: { type: integer, default: 5 }
              pier:
                type: reference
                to: Pier
                inverse: berths
                offer: { that: item.wide > 1, say: "{item.code} is too narrow for {this.code}." }
            """;

    private Yard yard;

    @BeforeEach
    void make() {
        yard = new Yard(CRANE, PIER, BERTH);
        yard.create("Crane", "code", "K1");
        yard.create("Pier", "code", "N");
    }

    private List<String> changing(Object... namesAndValues) {
        return messages(yard.change("Crane", "K1", namesAndValues));
    }

    @Test
    void aCheckOfCreatingLooksAtNewRecordsAlone() {
        assertThat(messages(yard.create("Crane", "code", "K2", "load", 100L, "why", "x")))
                .containsExactly("Too heavy to begin with.");
        assertThat(changing("load", 100L, "why", "x")).isEmpty();
    }

    @Test
    void aCheckOfChangingLooksAtRecordsThatAreThere() {
        assertThat(yard.create("Crane", "code", "K2", "reach", 100L))
                .isInstanceOf(Outcome.Done.class);
        assertThat(changing("reach", 100L)).containsExactly("Too far.");
    }

    @Test
    void aCheckOfRetiringLooksWhenARecordGoes() {
        changing("load", 5L);

        assertThat(messages(yard.retire("Crane", "K1"))).containsExactly("Something hangs on it.");
        changing("load", 0L);
        assertThat(yard.retire("Crane", "K1")).isInstanceOf(Outcome.Done.class);
    }

    @Test
    void aCheckOfAFieldLooksWhenItChanges() {
        assertThat(yard.create("Crane", "code", "K2", "note", "no")).isInstanceOf(Outcome.class);
        assertThat(changing("note", "no")).containsExactly("Not that note.");
        assertThat(changing("note", "yes")).isEmpty();
        assertThat(changing("load", 3L)).isEmpty();
    }

    @Test
    void aCheckOfLineItemsLooksWhenTheyChange() {
        var three = List.of(Map.of("size", 1L), Map.of("size", 2L), Map.of("size", 3L));

        assertThat(changing("hooks", three)).containsExactly("Three hooks.");
        assertThat(changing("hooks", three.subList(0, 2))).isEmpty();
    }

    @Test
    void severalTriggersAreEachEnough() {
        assertThat(messages(yard.create("Crane", "code", "K2", "load", 13L)))
                .containsExactly("Not thirteen.");
        assertThat(changing("load", 13L)).containsExactly("Not thirteen.");
    }

    @Test
    void aCheckOfARecordSeesWhatItWasBefore() {
        changing("load", 30L);

        assertThat(changing("load", 19L)).containsExactly("Too fast.");
        assertThat(changing("load", 20L)).isEmpty();
    }

    @Test
    void whatIsNeverWrittenIsRefusedOfNewRecordsToo() {
        assertThat(messages(yard.create("Crane", "code", "K2", "sealed", "tar")))
                .containsExactly("Sealed cannot be changed.");
        assertThat(changing("sealed", "tar")).containsExactly("Sealed cannot be changed.");
        assertThat(changing("sealed", "wax")).isEmpty();
    }

    @Test
    void whatIsReadOnlyNowIsSaidInItsWords() {
        changing("load", 60L);

        assertThat(changing("plate", "A")).containsExactly("Unload K1 first.");
    }

    @Test
    void whatIsRequiredNowIsSaidInItsWordsUnlessItIsHidden() {
        assertThat(changing("load", 91L)).containsExactly("Say why 91 is lifted.");
        assertThat(changing("load", 91L, "note", "quiet")).isEmpty();
        assertThat(changing("load", 91L, "note", "loud", "why", "a mast")).isEmpty();
    }

    @Test
    void lineItemsThatAreFixedAreSaidInTheirWords() {
        changing("note", "tied");

        assertThat(changing("hooks", List.of(Map.of("size", 4L))))
                .containsExactly("The hooks of K1 are tied.");
    }

    @Test
    void whatIsNotOfferedIsSaidInItsWords() {
        yard.create("Pier", "code", "S", "wide", 1L);

        assertThat(messages(yard.create("Berth", "code", "B1", "pier", "S")))
                .containsExactly("S is too narrow for B1.");
        assertThat(yard.create("Berth", "code", "B1", "pier", "N"))
                .isInstanceOf(Outcome.Done.class);
    }

    @Test
    void anotherRecordIsCheckedWhereWhatItsCheckReadsHasChanged() {
        yard.change("Pier", "N", "wide", 2L);
        yard.create("Berth", "code", "B1", "pier", "N");
        yard.create("Berth", "code", "B2", "pier", "N");

        assertThat(messages(yard.create("Berth", "code", "B3", "pier", "N")))
                .containsExactly("Pier N: N is full.");
        assertThat(yard.value("Pier", "N", "boats")).isEqualTo(2L);
    }

    @Test
    void anotherRecordThatIsWrongElsewhereIsLeftInPeace() {
        // Made before its check was: wrong already, and nobody touches what is wrong.
        yard.records.values(yard.object("Pier"), "N");
        yard.change("Pier", "N", "wide", 1L);
        yard.create("Berth", "code", "B1");

        assertThat(yard.change("Berth", "B1", "deep", 7L)).isInstanceOf(Outcome.Done.class);
    }

    @Test
    void anAccountTellsEachCheckWithWhatItCameTo() {
        assertThat(
                        yard.steps(
                                yard.changing("Crane", "K1", null, "reach", 5L),
                                TraceStep.Kind.CHECK))
                .extracting(step -> step.title() + " | " + step.detail() + " | " + step.result())
                .contains("Crane K1: lifted | reach < 100 | true")
                .doesNotContain("Crane K1: born | load < 100 | true");
    }
}
