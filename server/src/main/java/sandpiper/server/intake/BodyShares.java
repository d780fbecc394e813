package sandpiper.server.intake;

import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;

/**
 * Places of which nobody gets more than a share. Safe between threads; one that has none keeps
 * nothing here.
 */
final class BodyShares {
    private final int each;
    private final Semaphore all;
    private final ConcurrentHashMap<String, Integer> taken = new ConcurrentHashMap<>();

    /**
     * @param all places there are
     * @param each places one caller may have at the same time
     */
    BodyShares(int all, int each) {
        this.all = new Semaphore(all);
        this.each = each;
    }

    /** Takes a place for a caller, unless there is none for it. */
    boolean take(String caller) {
        if (!all.tryAcquire()) {
            return false;
        }
        int now = taken.merge(caller, 1, Integer::sum);
        if (now > each) {
            give(caller);
            return false;
        }
        return true;
    }

    /** Gives a place back. */
    void give(String caller) {
        taken.computeIfPresent(caller, (_, count) -> count == 1 ? null : count - 1);
        all.release();
    }

    /** Callers that have a place. */
    int callers() {
        return taken.size();
    }
}
