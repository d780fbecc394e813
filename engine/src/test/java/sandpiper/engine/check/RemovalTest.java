package sandpiper.engine.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doReturn;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static sandpiper.engine.Yard.messages;

import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.engine.Yard;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.RecordStorage.Referrer;

/** What becomes of taking a record away that others use, by what its definition says. */
class RemovalTest {
    private static String object(String name, String removal) {
        return "object: %s\nkey: code\nremoval: %s\nfields: { code: { type: text } }\n"
                .formatted(name, removal);
    }

    private Yard yard;

    @BeforeEach
    void make() {
        yard =
                new Yard(
                        object("Asked", "retire"),
                        object("Free", "{ retire: free }"),
                        object("Kept", "{ retire: refuse }"),
                        object("Gone", "delete"),
                        object("Fixed", "none"));
        for (var name : new String[] {"Asked", "Free", "Kept", "Gone", "Fixed"}) {
            yard.create(name, "code", "X");
        }
    }

    private void usedBy(int count) {
        doReturn(Optional.of(new Referrer(yard.object("Kept"), count)))
                .when(yard.records)
                .referrer(any(), any(), anyLong(), anyBoolean());
    }

    private Outcome remove(String object, boolean agreed) {
        return yard.run(
                new Request(
                                new RecordCommand.Remove(yard.object(object), "X", null),
                                Actor.SYSTEM,
                                "test",
                                false)
                        .with(new Leave(false, agreed)));
    }

    @ParameterizedTest
    @CsvSource({"Asked", "Free", "Kept", "Gone"})
    void whatNobodyUsesGoes(String object) {
        assertThat(remove(object, false)).isInstanceOf(Outcome.Success.class);
    }

    @ParameterizedTest
    @CsvSource({
        "Asked, false, 2, 'This Asked is used by 2 Kepts; it is retired when you say that this is"
                + " meant (Sandpiper-Confirm: in-use).'",
        "Kept, false, 1, 'This Kept is used by 1 Kept and cannot be retired.'",
        "Kept, true, 1, 'This Kept is used by 1 Kept and cannot be retired.'",
        "Gone, true, '1200', 'This Gone is used by 1,200 Kepts and cannot be deleted.'"
    })
    void whatIsUsedSaysByWhom(String object, boolean agreed, int count, String said) {
        usedBy(count);

        var outcome = remove(object, agreed);

        assertThat(messages(outcome)).containsExactly(said);
        assertThat(Yard.faults(outcome).getFirst().code()).isEqualTo(RecordCode.IN_USE);
        assertThat(((Outcome.Refused) outcome).reason()).isEqualTo(Outcome.Reason.CONFLICT);
        assertThat(yard.records.all(yard.object(object)).getFirst().retired()).isFalse();
    }

    @Test
    void whoeverSaysItIsMeantRetiresIt() {
        usedBy(2);

        assertThat(remove("Asked", true)).isInstanceOf(Outcome.Done.class);
        assertThat(yard.records.all(yard.object("Asked")).getFirst().retired()).isTrue();
    }

    @Test
    void whatMayGoFreelyIsNotLookedFor() {
        usedBy(2);

        assertThat(remove("Free", false)).isInstanceOf(Outcome.Done.class);
        verify(yard.records, never()).referrer(any(), any(), anyLong(), anyBoolean());
    }

    @Test
    void retiringLooksAtUsersInUseAndDeletingAtAll() {
        remove("Asked", false);
        verify(yard.records).referrer(any(), any(), anyLong(), eq(true));

        remove("Gone", false);
        verify(yard.records).referrer(any(), any(), anyLong(), eq(false));
        assertThat(yard.records.all(yard.object("Gone"))).isEmpty();
    }

    @Test
    void whatIsRetiredAlreadyIsNotAskedForAgain() {
        remove("Asked", false);
        usedBy(2);

        assertThat(remove("Asked", false)).isInstanceOf(Outcome.Done.class);
    }

    @Test
    void whatNeverGoesSaysSo() {
        assertThat(messages(remove("Fixed", true)))
                .containsExactly("Fixeds are neither retired nor deleted.");
    }
}
