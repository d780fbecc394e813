package sandpiper.engine.outside;

import java.time.Duration;
import java.util.Collections;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Answers that were fetched for the work that is done now. Immutable. */
public final class GivenAnswers {
    /** Nothing was fetched yet; what is wanted will be. */
    public static final GivenAnswers NOTHING = new GivenAnswers(Map.of(), Mode.ASKS, Map.of());

    /**
     * Nobody can fetch anything: codes are taken unseen, as of records that come with a package,
     * and calls fail.
     */
    public static final GivenAnswers UNSEEN = saying(Map.of());

    private static final ScopedValue<GivenAnswers> CURRENT = ScopedValue.newInstance();

    private final Map<Ask, Fetched> replies;
    private final Mode mode;
    private final Map<String, @Nullable Object> said;

    /** A reply, and how long it was waited for. */
    record Fetched(Reply reply, Duration took) {}

    /** What becomes of questions nobody has answered yet. */
    private enum Mode {
        ASKS,
        TRIES,
        UNSEEN
    }

    private GivenAnswers(Map<Ask, Fetched> replies, Mode mode, Map<String, @Nullable Object> said) {
        this.replies = Map.copyOf(replies);
        this.mode = mode;
        this.said = said;
    }

    /**
     * The same as {@link #UNSEEN}, with answers that somebody made up.
     *
     * @param said plain values by calls, as in {@code tide-table.rate}, whatever is asked of them
     */
    public static GivenAnswers saying(Map<String, @Nullable Object> said) {
        return new GivenAnswers(
                Map.of(), Mode.UNSEEN, Collections.unmodifiableMap(new HashMap<>(said)));
    }

    /** Those of the work at hand. */
    static GivenAnswers current() {
        return CURRENT.orElse(UNSEEN);
    }

    /** The same for work that is thrown away: what changes something outside is not asked. */
    GivenAnswers onTrial() {
        return new GivenAnswers(replies, Mode.TRIES, said);
    }

    GivenAnswers with(Map<Ask, Fetched> more) {
        var all = new HashMap<>(replies);
        all.putAll(more);
        return new GivenAnswers(all, mode, said);
    }

    Optional<Fetched> of(Ask ask) {
        var name = "%s.%s".formatted(ask.connection().name(), ask.name());
        return ask.kind() == Ask.Kind.CALL && said.containsKey(name)
                ? Optional.of(new Fetched(new Reply.Answer(said.get(name)), Duration.ZERO))
                : Optional.ofNullable(replies.get(ask));
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
