package sandpiper.server.replay;

import org.springframework.stereotype.Component;
import sandpiper.engine.rehearsal.ReplayReport;
import sandpiper.server.security.AccessTokens;

/**
 * Asks two copies of the data what services were asked, one without and one with the draft, and
 * tells what is answered otherwise. Both have the same records, so that what differs is the draft's
 * doing. Safe for use by many threads.
 */
@Component
public class Replay {
    private final Recordings recordings;
    private final AccessTokens tokens;

    Replay(Recordings recordings, AccessTokens tokens) {
        this.recordings = recordings;
        this.tokens = tokens;
    }

    /** Whether there may be calls to play. */
    public boolean hasCalls() {
        return !recordings.isEmpty();
    }

    /**
     * Plays what is kept, in the order in which it came.
     *
     * @param before where the copy without the draft answers, without a slash at the end
     * @param after where the one with the draft does
     * @throws InterruptedException when it was ended
     */
    public ReplayReport play(String before, String after) throws InterruptedException {
        try (var playing = new Playing(tokens, before, after);
                var calls = recordings.all()) {
            return playing.play(calls.iterator());
        }
    }
}
