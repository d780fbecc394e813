package sandpiper.engine.writer;

import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicBoolean;

/**
 * A job that waits for its turn. Whoever waits for it may give it up before that, and then it is
 * never done.
 */
public final class Queued<T> extends CompletableFuture<T> {
    private final AtomicBoolean claimed = new AtomicBoolean();

    /** Takes its turn; whether it is still wanted. */
    boolean begin() {
        return claimed.compareAndSet(false, true);
    }

    /** Gives it up; whether that was in time, so that nothing of it is done. */
    public boolean giveUp() {
        return claimed.compareAndSet(false, true);
    }
}
