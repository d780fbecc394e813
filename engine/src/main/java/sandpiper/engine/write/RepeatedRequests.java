package sandpiper.engine.write;

import java.time.Clock;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Outcome.Reason;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.AnswerStorage;
import sandpiper.engine.port.Transaction;

/** Sees to it that a request with a key of its own is done once, however often it is sent. */
final class RepeatedRequests {
    private final AnswerStorage answers;
    private final Clock clock;

    RepeatedRequests(AnswerStorage answers, Clock clock) {
        this.answers = answers;
        this.clock = clock;
    }

    /** The answer to the same request when it was done before, else {@code null}. */
    @Nullable Outcome earlier(Transaction transaction, Request request) {
        var once = request.once();
        if (once == null) {
            return null;
        }
        return answers.find(transaction, sender(request.actor()), once.key())
                .map(earlier -> again(request.actor(), once, earlier))
                .orElse(null);
    }

    /** Keeps the answer to what was done just now, for when it is sent again. */
    void keep(Transaction transaction, Request request, Outcome outcome) {
        var once = request.once();
        if (once != null && outcome instanceof Outcome.Success done) {
            answers.put(
                    transaction,
                    sender(request.actor()),
                    once.key(),
                    new AnswerStorage.StoredAnswer(
                            once.fingerprint(),
                            once.answer().make(transaction, done),
                            request.actor().rights()),
                    clock.instant());
        }
    }

    /** A user and a client may have had one name. */
    private static String sender(Actor actor) {
        return actor.kind() + " " + actor.name();
    }

    private static Outcome again(
            Actor actor, Request.Once once, AnswerStorage.StoredAnswer earlier) {
        if (!earlier.fingerprint().equals(once.fingerprint())) {
            return Outcome.Refused.because(
                    Reason.CONFLICT,
                    RecordCode.REPEATED_DIFFERENTLY,
                    "This idempotency key was used for another request; use a new key for each"
                            + " request.");
        }
        // An answer shows what its caller could see when it was given.
        return earlier.rights().isEmpty() || earlier.rights().equals(actor.rights())
                ? new Outcome.Repeated(earlier.text())
                : Outcome.Refused.because(
                        Reason.CONFLICT,
                        RecordCode.NOT_GRANTED,
                        "This request was done before. What is granted to you has changed since, so"
                                + " its answer is not given again; read the record.");
    }
}
