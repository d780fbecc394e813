package sandpiper.server.service;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.AdditionalAnswers.returnsArgAt;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import sandpiper.engine.Engine;
import sandpiper.engine.Records;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.Session;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.service.DeniedException;

/** What every protocol does with a change, told apart from how it writes the answer. */
class WritesTest {
    private static final Outcome.Returned DONE =
            new Outcome.Returned(mock(), List.of(), null, new Outcome.Result("quote", "12.50"));
    private static final Outcome.Refused REFUSED =
            Outcome.Refused.because(
                    Outcome.Reason.CONFLICT, RecordCode.NOT_UNIQUE, "Taken by another.");

    private final Engine engine = mock();
    private final Records records = mock();
    private final ServiceCall call = mock();
    private final LiveRelease live = mock();
    private final Session session = mock();
    private final RecordCommand command = mock(RecordCommand.Call.class);
    private final Request request = mock();

    /** Answers with what came back, and keeps it in brackets. */
    private static final class Bracketed implements AnswerForm<String> {
        @Override
        public String of(Changed changed) {
            return String.valueOf(Objects.requireNonNull(changed.result()).value());
        }

        @Override
        public String write(String answer) {
            return "[" + answer + "]";
        }

        @Override
        public String read(String kept) {
            return kept.substring(1, kept.length() - 1);
        }
    }

    @BeforeEach
    void begin() {
        when(call.narrowed(any(), any(), any())).then(returnsArgAt(2));
        when(call.engine()).thenReturn(engine);
        when(engine.records()).thenReturn(records);
        when(engine.live()).thenReturn(live);
        when(call.request(any(), any(), anyBoolean(), any())).thenReturn(request);
    }

    private Writes.Asked<String> asked(Writes.@Nullable Once once) {
        return new Writes.Asked<>(call, _ -> command, true, once, new Bracketed());
    }

    /** Records that come to an outcome, and tell of what was done while it is private. */
    private void comesTo(Outcome outcome) {
        when(records.<String>write(any(Function.class), any(Records.Answering.class)))
                .thenAnswer(invocation -> {
                    Function<LiveRelease, Request> maker = invocation.getArgument(0);
                    Records.Answering<String> answering = invocation.getArgument(1);
                    assertThat(maker.apply(live)).isSameAs(request);
                    return new Records.Answered<>(
                            outcome,
                            outcome instanceof Outcome.Success done
                                    ? answering.make(live, session, done)
                                    : null);
                });
    }

    @Test
    void whatIsDoneIsAnsweredInTheFormOfTheProtocol() {
        comesTo(DONE);

        assertThat(Writes.perform(asked(null))).isEqualTo(new Performed.Done<>(DONE, "12.50"));
        verify(call).request(live, command, true, null);
    }

    @Test
    void whatWasDoneBeforeIsAnsweredAsItWasThen() {
        comesTo(new Outcome.Repeated("[9.00]"));

        assertThat(Writes.perform(asked(null))).isEqualTo(new Performed.Again<>("9.00"));
    }

    @Test
    void whatIsRefusedHasNoAnswer() {
        comesTo(REFUSED);

        assertThat(Writes.perform(asked(null))).isEqualTo(new Performed.Refused<>(REFUSED));
    }

    @Test
    void theAnswerOfARequestThatMayBeRepeatedIsKeptInTheSameForm() {
        comesTo(DONE);
        var once = ArgumentCaptor.forClass(Request.Once.class);

        Writes.perform(asked(new Writes.Once("k-1", "print")));

        verify(call).request(eq(live), eq(command), eq(true), once.capture());
        assertThat(once.getValue().key()).isEqualTo("k-1");
        assertThat(once.getValue().fingerprint()).isEqualTo("print");
        assertThat(once.getValue().answer().make(session, DONE)).isEqualTo("[12.50]");
    }

    @Test
    void togetherEachIsAnsweredAndTheLastSaysWhyNothingWasDone() {
        when(records.write(any(), eq(Grouping.ALL_OR_NONE), any()))
                .thenAnswer(invocation -> {
                    Records.TurnListener listener = invocation.getArgument(2);
                    listener.done(0, live, session, DONE);
                    return List.of(DONE, REFUSED);
                });

        assertThat(Writes.together(engine, List.of(asked(null), asked(null), asked(null))))
                .containsExactly(
                        new Performed.Done<>(DONE, "12.50"), new Performed.Refused<>(REFUSED));
    }

    @Test
    void whatIsNotGrantedIsToldWithoutDoingAnything() {
        when(call.request(any(), any(), anyBoolean(), any()))
                .thenThrow(new DeniedException(DeniedException.Reason.NOT_GRANTED, "Not for you."));

        assertThatThrownBy(asked(null)::require).hasMessage("Not for you.");
        verify(engine, org.mockito.Mockito.never()).records();
    }
}
