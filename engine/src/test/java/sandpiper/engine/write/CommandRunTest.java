package sandpiper.engine.write;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static sandpiper.engine.Yard.faults;
import static sandpiper.engine.Yard.messages;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.Expected;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Outcome.Reason;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.RecordCommand;

/** What each command comes to, whichever way the record is not as it should be. */
class CommandRunTest {
    private static final String CRANE =
            """
            object: Crane
            key: code
            fields:
              code: { type: text }
              reach: { type: integer, required: true }
              yard: { type: text, default: north }
            """;

    private static final String LOCK =
            """
            object: Lock
            key: [canal, number]
            removal: delete
            fields:
              canal: { type: text }
              number: { type: integer }
              depth: { type: decimal }
            """;

    private static final String LOG =
            """
            object: Log
            removal: none
            fields:
              text: { type: text }
            """;

    private Yard yard;

    @BeforeEach
    void make() {
        yard = new Yard(CRANE, LOCK, LOG);
    }

    private void hasCode(Outcome outcome, Reason reason, RecordCode code) {
        assertThat(outcome).isInstanceOf(Outcome.Refused.class);
        assertThat(((Outcome.Refused) outcome).reason()).isEqualTo(reason);
        assertThat(faults(outcome)).extracting(fault -> fault.code()).containsExactly(code);
        verify(yard.history, never())
                .add(any(), org.mockito.ArgumentMatchers.argThat(one -> one.version() > 1));
    }

    @Nested
    class Creating {
        @Test
        void storesWhatIsGivenWithItsDefaults() {
            var done = (Outcome.Done) yard.create("Crane", "code", "K1", "reach", 30L);

            assertThat(done.created()).isTrue();
            assertThat(done.version()).isEqualTo(1);
            assertThat(yard.records.values(yard.object("Crane"), "K1"))
                    .containsEntry("reach", 30L)
                    .containsEntry("yard", "north");
        }

        @Test
        void leavesEmptyWhatWasEmptiedOnPurpose() {
            yard.create("Crane", "code", "K1", "reach", 30L, "yard", null);

            assertThat(yard.value("Crane", "K1", "yard")).isNull();
        }

        @Test
        void saysAllThatIsMissing() {
            var outcome = yard.create("Crane");

            assertThat(faults(outcome))
                    .extracting(fault -> fault.path().toString(), fault -> fault.code())
                    .containsExactlyInAnyOrder(
                            org.assertj.core.groups.Tuple.tuple("code", RecordCode.REQUIRED),
                            org.assertj.core.groups.Tuple.tuple("reach", RecordCode.REQUIRED));
            assertThat(yard.records.all(yard.object("Crane"))).isEmpty();
        }

        @Test
        void refusesAKeyThatIsTaken() {
            yard.create("Lock", "canal", "Old", "number", 1L);
            yard.create("Lock", "canal", "Old", "number", 2L);

            hasCode(
                    yard.create("Lock", "canal", "Old", "number", 2L),
                    Reason.CONFLICT,
                    RecordCode.DUPLICATE_KEY);
        }

        @Test
        void refusesWhatIsNotGranted() {
            hasCode(
                    yard.run(
                            yard.creating("Crane", "code", "K1", "reach", 30L),
                            RecordScope.ALL,
                            RecordScope.ALL.and("reach > 50"),
                            false),
                    Reason.CONFLICT,
                    RecordCode.NOT_GRANTED);
        }
    }

    @Nested
    class Changing {
        @BeforeEach
        void one() {
            yard.create("Crane", "code", "K1", "reach", 30L);
            org.mockito.Mockito.clearInvocations(yard.history);
        }

        @Test
        void countsTheVersionAndTellsTheHistory() {
            var done = (Outcome.Done) yard.change("Crane", "K1", "reach", 31L);

            assertThat(done.version()).isEqualTo(2);
            var entry =
                    org.mockito.ArgumentCaptor.forClass(
                            sandpiper.engine.port.HistoryStorage.Entry.class);
            verify(yard.history).add(any(), entry.capture());
            assertThat(entry.getValue().operation()).isEqualTo("changed");
            assertThat(entry.getValue().by()).isEqualTo("ann");
            assertThat(entry.getValue().changes())
                    .extracting(
                            change -> change.path() + " " + change.before() + " " + change.after())
                    .containsExactly("reach 30 31");
        }

        @Test
        void leavesNoTraceWhenNothingIsAnother() {
            var done = (Outcome.Done) yard.change("Crane", "K1", "reach", 30L);

            assertThat(done.version()).isEqualTo(1);
            verify(yard.history, never()).add(any(), any());
            verify(yard.records, never()).update(any(), any(), any(), any());
        }

        @Test
        void findsOnlyWhatThereIs() {
            hasCode(
                    yard.change("Crane", "K9", "reach", 1L),
                    Reason.MISSING,
                    RecordCode.NO_SUCH_RECORD);
        }

        @Test
        void findsOnlyWhatIsReached() {
            hasCode(
                    yard.run(
                            yard.changing("Crane", "K1", null, "reach", 1L),
                            RecordScope.ALL.and("reach > 50"),
                            RecordScope.ALL,
                            false),
                    Reason.MISSING,
                    RecordCode.NO_SUCH_RECORD);
        }

        @Test
        void mayNotLeaveWhatIsGranted() {
            hasCode(
                    yard.run(
                            yard.changing("Crane", "K1", null, "reach", 90L),
                            RecordScope.ALL,
                            RecordScope.ALL.and("reach < 50"),
                            false),
                    Reason.CONFLICT,
                    RecordCode.NOT_GRANTED);
        }

        @Test
        void isBasedOnTheVersionThatIsThere() {
            yard.change("Crane", "K1", "reach", 31L);
            org.mockito.Mockito.clearInvocations(yard.history);

            var outcome = yard.run(yard.changing("Crane", "K1", 1L, "reach", 32L));

            assertThat(((Outcome.Refused) outcome).reason()).isEqualTo(Reason.STALE);
            assertThat(messages(outcome))
                    .containsExactly(
                            "This Crane was changed by ann in the meantime (version 2, not 1); read"
                                    + " it again and repeat your change.");
        }

        @Test
        void mustSayAVersionWhereOneIsAskedFor() {
            hasCode(
                    yard.run(
                            yard.changing("Crane", "K1", null, "reach", 32L),
                            RecordScope.ALL,
                            RecordScope.ALL,
                            true),
                    Reason.UNVERSIONED,
                    RecordCode.VERSION_NEEDED);
        }

        @Test
        void isNotForWhatIsRetired() {
            yard.retire("Crane", "K1");
            org.mockito.Mockito.clearInvocations(yard.history);

            hasCode(
                    yard.change("Crane", "K1", "reach", 32L),
                    Reason.CONFLICT,
                    RecordCode.RETIRED_RECORD);
        }
    }

    @Nested
    class Saving {
        @Test
        void makesWhatIsNotThereAndChangesWhatIs() {
            var made = (Outcome.Done) yard.run(yard.saving("Crane", "K1", "reach", 30L));
            var changed = (Outcome.Done) yard.run(yard.saving("Crane", "K1", "reach", 31L));

            assertThat(made.created()).isTrue();
            assertThat(changed.created()).isFalse();
            assertThat(yard.value("Crane", "K1", "reach")).isEqualTo(31L);
        }

        @Test
        void findsAKeyOfTwoFieldsInTheAddressAndAmongTheValues() {
            yard.run(yard.saving("Lock", "Old,2", "depth", null));
            var again =
                    (Outcome.Done)
                            yard.run(yard.saving("Lock", null, "canal", "Old", "number", 2L));

            assertThat(again.created()).isFalse();
            assertThat(yard.records.all(yard.object("Lock"))).hasSize(1);
        }

        @Test
        void refusesTwoKeys() {
            hasCode(
                    yard.run(yard.saving("Crane", "K1", "code", "K2", "reach", 30L)),
                    Reason.INVALID,
                    RecordCode.KEY_DIFFERS);
        }

        @Test
        void refusesAKeyOfAnotherForm() {
            hasCode(
                    yard.run(yard.saving("Lock", "Old,two", "depth", null)),
                    Reason.INVALID,
                    RecordCode.BAD_KEY);
        }

        @Test
        void needsAKey() {
            hasCode(
                    yard.run(yard.saving("Log", null, "text", "x")),
                    Reason.INVALID,
                    RecordCode.KEY_MISSING);
        }
    }

    @Nested
    class Removing {
        @Test
        void retiresAndComesBack() {
            yard.create("Crane", "code", "K1", "reach", 30L);

            yard.retire("Crane", "K1");
            assertThat(yard.records.all(yard.object("Crane")).getFirst().retired()).isTrue();

            yard.run(new RecordCommand.Restore(yard.object("Crane"), "K1"));
            assertThat(yard.records.all(yard.object("Crane")).getFirst().retired()).isFalse();
        }

        @Test
        void deletesForGoodWhereThatIsSaid() {
            yard.create("Lock", "canal", "Old", "number", 1L);

            assertThat(yard.retire("Lock", "Old,1")).isInstanceOf(Outcome.Done.class);
            assertThat(yard.records.all(yard.object("Lock"))).isEmpty();
        }

        @Test
        void isNotOfferedEverywhere() {
            var done = (Outcome.Done) yard.create("Log", "text", "x");

            hasCode(
                    yard.retire("Log", done.id().toString()),
                    Reason.CONFLICT,
                    RecordCode.NOT_REMOVABLE);
        }

        @Test
        void isBasedOnTheVersionThatIsThere() {
            yard.create("Crane", "code", "K1", "reach", 30L);

            hasCode(
                    yard.run(
                            new RecordCommand.Remove(
                                    yard.object("Crane"), "K1", Expected.version(7L))),
                    Reason.STALE,
                    RecordCode.STALE);
        }
    }

    @Test
    void aRefusalIsDoneOnceMoreForItsAccountAndUndoneInBetween() {
        var outcome = (Outcome.Refused) yard.create("Crane");

        assertThat(outcome.trace()).isNotNull();
        verify(yard.transaction).mark();
        verify(yard.transaction).undoToMark();
        verify(yard.transaction, never()).keepSinceMark();
    }

    @Test
    void ofARecordThatIsNotThereNoAccountIsTaken() {
        var outcome = (Outcome.Refused) yard.change("Crane", "K9", "reach", 1L);

        assertThat(outcome.trace()).isNull();
        verify(yard.transaction, never()).undoToMark();
    }
}
