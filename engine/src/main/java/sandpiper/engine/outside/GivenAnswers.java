package sandpiper.engine.outside;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** Answers that were fetched for the work that is done now. Immutable. */
public final class GivenAnswers {
    /** Nothing was fetched yet; what is wanted will be. */
    public static final GivenAnswers NOTHING = new GivenAnswers(Map.of(), Mode.ASKS);

    /**
     * Nobody can fetch anything: codes are taken unseen, as of records that come with a package,
     * and calls fail.
     */
    public static final GivenAnswers UNSEEN = new GivenAnswers(Map.of(), Mode.UNSEEN);

    private static final ScopedValue<GivenAnswers> CURRENT = ScopedValue.newInstance();

    private final Map<Ask, Reply> replies;
    private final Mode mode;

    /** What becomes of questions nobody has answered yet. */
    private enum Mode {
        ASKS,
        TRIES,
        UNSEEN
    }

    private GivenAnswers(Map<Ask, Reply> replies, Mode mode) {
        this.replies = Map.copyOf(replies);
        this.mode = mode;
    }

    /** Those of the work at hand. */
    static GivenAnswers current() {
        return CURRENT.orElse(UNSEEN);
    }

    /** The same for work that is thrown away: what changes something outside is not asked. */
    GivenAnswers onTrial() {
        return new GivenAnswers(replies, Mode.TRIES);
    }

    GivenAnswers with(Map<Ask, Reply> more) {
        var all = new HashMap<>(replies);
        all.putAll(more);
        return new GivenAnswers(all, mode);
    }

    Optional<Reply> of(Ask ask) {
        return Optional.ofNullable(replies.get(ask));
    }

    int size() {
        return replies.size();
    }

    boolean mayAsk() {
        return mode != Mode.UNSEEN;
    }

    boolean isTrial() {
        return mode == Mode.TRIES;
    }

    /** Does something with these answers. */
    public <T, X extends Throwable> T in(ScopedValue.CallableOp<? extends T, X> work) throws X {
        return ScopedValue.where(CURRENT, this).call(work);
    }
}
