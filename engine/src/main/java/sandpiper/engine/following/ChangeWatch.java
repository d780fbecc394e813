package sandpiper.engine.following;

import java.time.Duration;
import java.util.EnumMap;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Storage.Shared;
import sandpiper.engine.port.StorageException;

/**
 * Notices what other processes changed of what this one keeps in memory, some times a second, and
 * has it read anew. Where no other process writes it does nothing.
 */
public final class ChangeWatch implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(ChangeWatch.class);
    private static final Duration BETWEEN_LOOKS = Duration.ofMillis(200);

    private final Storage storage;
    private final Map<Shared, Runnable> refreshing;
    private final Map<Shared, Long> seen = new EnumMap<>(Shared.class);
    private final Thread thread;
    private volatile boolean closed;

    private ChangeWatch(Storage storage, Map<Shared, Runnable> refreshing) {
        this.storage = storage;
        this.refreshing = Map.copyOf(refreshing);
        this.thread = Thread.ofPlatform().daemon().name("sandpiper-watch").unstarted(this::run);
    }

    /**
     * Begins to look.
     *
     * @param refreshing reads anew what was changed; called on a thread of its own, one at a time
     */
    public static ChangeWatch begin(Storage storage, Map<Shared, Runnable> refreshing) {
        var watch = new ChangeWatch(storage, refreshing);
        if (storage.writers() > 1) {
            watch.thread.start();
        }
        return watch;
    }

    private void run() {
        while (!closed) {
            try {
                look();
                Thread.sleep(BETWEEN_LOOKS);
            } catch (InterruptedException _) {
                return;
            }
        }
    }

    private void look() {
        Map<Shared, Long> stamps;
        try (var session = storage.snapshot()) {
            stamps = storage.stamps(session);
        } catch (RuntimeException e) {
            LOG.debug("What others changed cannot be read now", e);
            return;
        }
        stamps.forEach((what, stamp) -> {
            if (!stamp.equals(seen.get(what))) {
                refresh(what, stamp);
            }
        });
    }

    private void refresh(Shared what, long stamp) {
        var refresh = refreshing.get(what);
        try {
            if (refresh != null) {
                refresh.run();
            }
            seen.put(what, stamp);
        } catch (StorageException e) {
            // It is tried again at the next look.
            LOG.warn("What others changed could not be read", e);
        } catch (RuntimeException e) {
            seen.put(what, stamp);
            LOG.error("What others changed could not be taken over", e);
        }
    }

    @Override
    public void close() {
        closed = true;
        if (!thread.isAlive()) {
            return;
        }
        thread.interrupt();
        try {
            thread.join(Duration.ofSeconds(10));
        } catch (InterruptedException _) {
            Thread.currentThread().interrupt();
        }
    }
}
