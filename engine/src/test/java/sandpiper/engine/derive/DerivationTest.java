package sandpiper.engine.derive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.clearInvocations;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;

import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;

/** What follows from a change, and what the store is asked for it. */
class DerivationTest {
    private static final String OWNER =
            """
            object: Owner
            key: code
            fields:
              code: { type: text }
              rate: { type: integer, default: 2 }
              boats: { type: integer, formula: count(vessels) }
              metres: { type: integer, formula: sum(vessels.length) }
              longest: { type: integer, formula: max(vessels.length) }
              half: { type: integer, formula: metres / 2 }
            """;

    private static final String VESSEL =
            """
            object: Vessel
            key: code
            fields:
              code: { type: text }
              owner: { type: reference, to: Owner, inverse: vessels }
              length: { type: integer, default: 1 }
              note: { type: text }
              fee: { type: integer, formula: length * owner.rate }
              wide: { type: text, length: 3, formula: string(length * 3) }
            parts:
              lines:
                fields:
                  price: { type: integer }
                  twice: { type: integer, formula: price * 2 }
            """;

    private Yard yard;

    @BeforeEach
    void make() {
        yard = new Yard(OWNER, VESSEL);
        yard.create("Owner", "code", "O1");
        yard.create("Owner", "code", "O2");
        yard.create("Vessel", "code", "V1", "owner", "O1", "length", 10L);
        yard.create("Vessel", "code", "V2", "owner", "O1", "length", 7L);
        clearInvocations(yard.records);
    }

    private Object owner(String key, String field) {
        return yard.value("Owner", key, field);
    }

    @Test
    void totalsFollowWhatIsAdded() {
        assertThat(owner("O1", "boats")).isEqualTo(2L);
        assertThat(owner("O1", "metres")).isEqualTo(17L);
        assertThat(owner("O1", "longest")).isEqualTo(10L);
        assertThat(owner("O1", "half")).isEqualTo(9L);
        assertThat(yard.value("Vessel", "V1", "fee")).isEqualTo(20L);
    }

    @Test
    void aTotalIsKeptByDifferenceWithoutLookingAtTheOthers() {
        yard.change("Vessel", "V2", "length", 8L);

        assertThat(owner("O1", "metres")).isEqualTo(18L);
        verify(yard.records, never()).numbers(any(), any(), any(), any(), anyInt());
        verify(yard.records, never()).total(any(), any(), any(), any(), any());
    }

    @Test
    void theStoreIsAskedForTheNextWhenTheHighestLeaves() {
        yard.change("Vessel", "V1", "length", 3L);

        assertThat(owner("O1", "longest")).isEqualTo(7L);
        verify(yard.records).total(any(), any(), any(), any(), any());
    }

    @Test
    void aChildThatMovesLeavesOneTotalAndJoinsAnother() {
        yard.change("Vessel", "V1", "owner", "O2");

        assertThat(owner("O1", "metres")).isEqualTo(7L);
        assertThat(owner("O1", "boats")).isEqualTo(1L);
        assertThat(owner("O2", "metres")).isEqualTo(10L);
        assertThat(owner("O2", "longest")).isEqualTo(10L);
    }

    @Test
    void aChildThatIsRetiredCountsNoMoreAndComesBack() {
        yard.retire("Vessel", "V1");
        assertThat(owner("O1", "metres")).isEqualTo(7L);

        yard.run(new sandpiper.engine.command.RecordCommand.Restore(yard.object("Vessel"), "V1"));
        assertThat(owner("O1", "metres")).isEqualTo(17L);
    }

    @Test
    void whatReadsAReferenceFollowsTheRecordBehindIt() {
        yard.change("Owner", "O1", "rate", 5L);

        assertThat(yard.value("Vessel", "V1", "fee")).isEqualTo(50L);
        assertThat(yard.value("Vessel", "V2", "fee")).isEqualTo(35L);
    }

    @Test
    void whatNobodyReadsSetsNothingOff() {
        yard.change("Vessel", "V1", "note", "new paint");

        verify(yard.records, never()).referring(any(), any(), any(), any(), anyLong());
        verify(yard.records)
                .update(
                        any(),
                        org.mockito.ArgumentMatchers.argThat(one -> one.name().equals("Vessel")),
                        any(),
                        any());
        verify(yard.records, never())
                .update(
                        any(),
                        org.mockito.ArgumentMatchers.argThat(one -> one.name().equals("Owner")),
                        any(),
                        any());
    }

    @Test
    void whatFollowsIsNoVersionOfItsOwn() {
        yard.change("Vessel", "V1", "length", 30L);

        var owner = yard.records.all(yard.object("Owner")).getFirst();
        assertThat(owner.version()).isEqualTo(1);
    }

    @Test
    void eachLineItemHasItsOwn() {
        yard.change(
                "Vessel",
                "V1",
                "lines",
                java.util.List.of(Map.of("price", 3L), Map.of("price", 4L)));

        var vessel = yard.records.all(yard.object("Vessel")).getFirst();
        assertThat(vessel.items().getFirst())
                .extracting(item -> item.values()[1])
                .containsExactly(6L, 8L);
    }

    @Test
    void whatCannotBeStoredIsSaidAtItsField() {
        var outcome = yard.change("Vessel", "V1", "length", 400L);

        assertThat(Yard.faults(outcome))
                .extracting(fault -> fault.code(), fault -> fault.path().toString())
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(RecordCode.CANNOT_BE_STORED, "wide"));
    }

    @Test
    void whatCanBeStoredAgainIsForgotten() {
        yard.change("Vessel", "V1", "length", 400L);

        assertThat(yard.change("Vessel", "V1", "length", 33L)).isInstanceOf(Outcome.Done.class);
        assertThat(yard.value("Vessel", "V1", "wide")).isEqualTo("99");
    }
}
