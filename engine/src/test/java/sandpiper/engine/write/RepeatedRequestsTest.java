package sandpiper.engine.write;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.AnswerStorage.StoredAnswer;

class RepeatedRequestsTest {
    private static final Actor DESK =
            new Actor(Actor.Kind.CLIENT, "desk", Set.of(), List.of("yard/cranes/create"));

    private final Yard yard =
            new Yard(
                    """
                    object: Crane
                    key: code
                    fields:
                      code: { type: text }
                    """);

    private Outcome create(String key, String fingerprint) {
        return yard.run(
                new Request(
                        yard.creating("Crane", "code", "K1"),
                        DESK,
                        "yard v1",
                        false,
                        false,
                        new Request.Once(key, fingerprint, (_, done) -> "made " + done.object())));
    }

    private void known(String fingerprint, String rights) {
        when(yard.answers.find(any(), eq("CLIENT desk"), eq("k")))
                .thenReturn(Optional.of(new StoredAnswer(fingerprint, "made before", rights)));
    }

    @Test
    void whatIsDoneIsKeptWithWhoDidItAndWhatHeMay() {
        create("k", "a");

        verify(yard.answers)
                .put(
                        eq(yard.transaction),
                        eq("CLIENT desk"),
                        eq("k"),
                        org.mockito.ArgumentMatchers.argThat(one ->
                                one.fingerprint().equals("a")
                                        && one.rights().equals(DESK.rights())),
                        eq(Yard.CLOCK.instant()));
    }

    @Test
    void theSameOnceMoreIsAnsweredAndNotDone() {
        known("a", DESK.rights());

        assertThat(create("k", "a")).isEqualTo(new Outcome.Repeated("made before"));
        assertThat(yard.records.all(yard.object("Crane"))).isEmpty();
    }

    @Test
    void anAnswerFromBeforeRightsWereKeptIsGiven() {
        known("a", "");

        assertThat(create("k", "a")).isInstanceOf(Outcome.Repeated.class);
    }

    @Test
    void anotherRequestUnderTheSameKeyIsRefused() {
        known("b", DESK.rights());

        assertThat(Yard.faults(create("k", "a")))
                .extracting(fault -> fault.code())
                .containsExactly(RecordCode.REPEATED_DIFFERENTLY);
    }

    @Test
    void whoMayOtherThingsNowIsNotShownTheOldAnswer() {
        known("a", "other rights");

        assertThat(Yard.faults(create("k", "a")))
                .extracting(fault -> fault.code())
                .containsExactly(RecordCode.NOT_GRANTED);
    }

    @Test
    void ofWhatIsRefusedNothingIsKept() {
        yard.create("Crane", "code", "K1");

        assertThat(create("k", "a")).isInstanceOf(Outcome.Refused.class);
        verify(yard.answers, never()).put(any(), any(), any(), any(), any());
    }
}
