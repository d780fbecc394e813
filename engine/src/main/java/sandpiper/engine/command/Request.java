package sandpiper.engine.command;

import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.port.Session;

/**
 * A command with who wants it.
 *
 * @param via the way in, for the history: {@code console}, {@code berth-desk v1}
 * @param textual whether every value may come as text, as from a file; otherwise a number must be a
 *     number
 * @param traced whether the one who asks wants the account of it
 * @param once makes sure that a repeated request is done once, or {@code null}
 * @param scope the records it can reach; others are not there for it
 * @param after what the record must be when it is done
 * @param versioned whether a change of a record must say which version it is based on
 * @param leave what whoever asks takes upon themselves
 */
public record Request(
        RecordCommand command,
        Actor actor,
        String via,
        boolean textual,
        boolean traced,
        @Nullable Once once,
        RecordScope scope,
        RecordScope after,
        boolean versioned,
        Leave leave) {

    /** Without an account and without a key of its own. */
    public Request(RecordCommand command, Actor actor, String via, boolean textual) {
        this(command, actor, via, textual, false, null);
    }

    /** Over every record there is. */
    public Request(
            RecordCommand command,
            Actor actor,
            String via,
            boolean textual,
            boolean traced,
            @Nullable Once once) {
        this(
                command,
                actor,
                via,
                textual,
                traced,
                once,
                RecordScope.ALL,
                RecordScope.ALL,
                false,
                Leave.NONE);
    }

    /** The same with what whoever asks takes upon themselves. */
    public Request with(Leave other) {
        return new Request(
                command, actor, via, textual, traced, once, scope, after, versioned, other);
    }

    /**
     * Identifies a request that may be repeated.
     *
     * @param key chosen by the caller
     * @param fingerprint of what was asked, so that the key of another request is noticed
     * @param answer writes the answer while the change is still private, so that it can be given
     *     again later
     */
    public record Once(String key, String fingerprint, AnswerMaker answer) {}

    /** Writes an answer in the protocol's own form. */
    @FunctionalInterface
    public interface AnswerMaker {
        String make(Session session, Outcome.Success done);
    }
}
