package sandpiper.engine.derive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.clearInvocations;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.trace.TraceStep;

/** Totals with conditions, over several steps, of highest and lowest, and of times. */
class TotalsTest {
    private static final String FLEET =
            """
            object: Fleet
            key: code
            fields:
              code: { type: text }
              open: { type: boolean, default: true }
              size: { type: integer, formula: count(boats) }
              large: { type: integer, formula: "count(boats[item.length > 10])" }
              metres: { type: integer, formula: "sum(boats[item.length > 10].length)" }
              longest: { type: integer, formula: max(boats.length) }
              shortest: { type: integer, formula: min(boats.length) }
              days: { type: integer, formula: sum(boats.trips.days) }
              hours: { type: duration, formula: sum(boats.time) }
            """;

    private static final String BOAT =
            """
            object: Boat
            key: code
            removal: retire
            fields:
              code: { type: text }
              fleet: { type: reference, to: Fleet, inverse: boats }
              length: { type: integer, default: 8 }
              time: { type: duration }
              note: { type: text }
            """;

    private static final String TRIP =
            """
            object: Trip
            key: code
            fields:
              code: { type: text }
              boat: { type: reference, to: Boat, inverse: trips }
              days: { type: integer, default: 1 }
            """;

    private Yard yard;

    @BeforeEach
    void make() {
        yard = new Yard(FLEET, BOAT, TRIP);
        yard.create("Fleet", "code", "A");
        yard.create("Fleet", "code", "B");
        yard.create("Boat", "code", "1", "fleet", "A", "length", 12L, "time", "PT2H");
        yard.create("Boat", "code", "2", "fleet", "A", "length", 8L, "time", "PT30M");
        yard.create("Boat", "code", "3", "length", 20L);
    }

    private Object of(String fleet, String field) {
        return yard.value("Fleet", fleet, field);
    }

    @Test
    void onlyWhatMeetsTheConditionCounts() {
        assertThat(of("A", "size")).isEqualTo(2L);
        assertThat(of("A", "large")).isEqualTo(1L);
        assertThat(of("A", "metres")).isEqualTo(12L);
        assertThat(of("B", "large")).isEqualTo(0L);
    }

    @Test
    void whatComesToMeetTheConditionIsAddedAndWhatNoLongerDoesIsTakenOff() {
        yard.change("Boat", "2", "length", 11L);
        assertThat(of("A", "large")).isEqualTo(2L);
        assertThat(of("A", "metres")).isEqualTo(23L);

        yard.change("Boat", "1", "length", 9L);
        assertThat(of("A", "large")).isEqualTo(1L);
        assertThat(of("A", "metres")).isEqualTo(11L);
    }

    @Test
    void whatMovesLeavesOneAndJoinsTheOther() {
        yard.change("Boat", "1", "fleet", "B");

        assertThat(of("A", "size")).isEqualTo(1L);
        assertThat(of("A", "metres")).isEqualTo(0L);
        assertThat(of("B", "size")).isEqualTo(1L);
        assertThat(of("B", "metres")).isEqualTo(12L);
        yard.change("Boat", "1", "fleet", null);
        assertThat(of("B", "size")).isEqualTo(0L);
        yard.change("Boat", "3", "fleet", "A");
        assertThat(of("A", "metres")).isEqualTo(20L);
    }

    @Test
    void theHighestAndTheLowestFollowAtBothEnds() {
        assertThat(of("A", "longest")).isEqualTo(12L);
        assertThat(of("A", "shortest")).isEqualTo(8L);

        yard.create("Boat", "code", "4", "fleet", "A", "length", 15L);
        yard.create("Boat", "code", "5", "fleet", "A", "length", 3L);
        assertThat(of("A", "longest")).isEqualTo(15L);
        assertThat(of("A", "shortest")).isEqualTo(3L);

        yard.change("Boat", "4", "length", 5L);
        yard.change("Boat", "5", "length", 13L);
        assertThat(of("A", "longest")).isEqualTo(13L);
        assertThat(of("A", "shortest")).isEqualTo(5L);
    }

    @Test
    void ofNobodyThereIsNoHighest() {
        assertThat(of("B", "longest")).isNull();
        yard.change("Boat", "1", "fleet", "B");
        assertThat(of("B", "longest")).isEqualTo(12L);
        yard.change("Boat", "1", "fleet", null);
        assertThat(of("B", "longest")).isNull();
    }

    @Test
    void whatLiesBetweenIsLookedAtByNobody() {
        yard.create("Boat", "code", "4", "fleet", "A", "length", 10L);
        clearInvocations(yard.records);

        yard.change("Boat", "4", "length", 9L);

        verify(yard.records, never()).total(any(), any(), any(), any(), any());
        verify(yard.records, never()).numbers(any(), any(), any(), any(), anyInt());
        assertThat(of("A", "longest")).isEqualTo(12L);
    }

    @Test
    void totalsReachOverTwoSteps() {
        yard.create("Trip", "code", "T1", "boat", "1", "days", 3L);
        yard.create("Trip", "code", "T2", "boat", "2", "days", 4L);
        yard.create("Trip", "code", "T3", "boat", "3", "days", 5L);
        assertThat(of("A", "days")).isEqualTo(7L);

        yard.change("Trip", "T1", "days", 1L);
        assertThat(of("A", "days")).isEqualTo(5L);
        yard.change("Trip", "T2", "boat", null);
        assertThat(of("A", "days")).isEqualTo(1L);
    }

    @Test
    void timesAddUp() {
        assertThat(of("A", "hours")).isEqualTo(9_000_000_000L);

        yard.change("Boat", "2", "time", "PT1H");
        assertThat(of("A", "hours")).isEqualTo(10_800_000_000L);
        yard.change("Boat", "1", "fleet", null);
        assertThat(of("A", "hours")).isEqualTo(3_600_000_000L);
        yard.change("Boat", "2", "time", null);
        assertThat(of("A", "hours")).isIn(null, 0L);
    }

    @Test
    void whatTheTotalDoesNotReadChangesNothing() {
        clearInvocations(yard.records);

        yard.change("Boat", "1", "note", "blue");

        verify(yard.records, never())
                .update(any(), org.mockito.ArgumentMatchers.eq(yard.object("Fleet")), any(), any());
    }

    @Test
    void anAccountTellsHowATotalFollowed() {
        assertThat(
                        yard.steps(
                                yard.changing("Boat", "2", null, "length", 14L),
                                TraceStep.Kind.FORMULA))
                .extracting(step -> step.title() + " | " + step.result())
                .contains("Fleet A: large | 1 → 2", "Fleet A: metres | 12 → 26");
    }
}
