package sandpiper.engine.definition;

import java.time.Clock;
import java.time.Duration;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.access.Actor;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.port.RecomputationStorage.Open;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.write.Backfill;
import sandpiper.engine.write.Backfilled;
import sandpiper.engine.writer.Writer;

/**
 * Works out for many records what formulas give, and takes over what travels along routes, since a
 * release changed that: some at a time, so that whoever writes waits for few. How far it has come
 * is stored with the values, so that it goes on after a stop. Until it is done, records that were
 * not reached show what the formula gave before, unless they were changed meanwhile.
 */
public final class BackfillJob implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(BackfillJob.class);
    private static final Duration TROUBLE_WAIT = Duration.ofSeconds(1);

    private static final int MOST_FAILURES = 5;

    /**
     * Raised whenever the service learns to work formulas out better than it stored them: a file of
     * an earlier revision gets all of them worked out once more. 2: formulas that mix what refers
     * to a record with what is its own. 3: totals that went up and down again within one piece of
     * work.
     */
    private static final int REVISION = 3;

    private final Storage storage;
    private final Supplier<LiveRelease> live;
    private final Writer writer;
    private final Clock clock;
    private final Semaphore wanted = new Semaphore(1);
    private final Thread thread;
    private volatile boolean closed;
    private int failures;

    /**
     * One that is not done.
     *
     * @param formula the field, such as {@code Stay.vatTotal}
     * @param share of the records that are done, from 0 to 1
     */
    public record Progress(String formula, double share) {}

    /** Goes on with what an earlier stop left. */
    BackfillJob(Storage storage, Supplier<LiveRelease> live, Writer writer, Clock clock) {
        this.storage = storage;
        this.live = live;
        this.writer = writer;
        this.clock = clock;
        bringUpToDate();
        this.thread = Thread.ofPlatform().daemon().name("sandpiper-formulas").start(this::run);
    }

    /** What an earlier revision stored is worked out anew, once, as after a release. */
    private void bringUpToDate() {
        try (var session = storage.snapshot()) {
            if (storage.recomputations().revision(session) >= REVISION) {
                return;
            }
        }
        writer.write(transaction -> {
            var now = live.get();
            var begun =
                    storage.recomputations().all(transaction).stream().map(Open::formula).toList();
            now.release().objects().stream()
                    .flatMap(object -> now.logic().of(object).formulas().stream())
                    .filter(formula -> !formula.field().onRead())
                    .filter(formula -> !begun.contains(formula.written()))
                    .forEach(formula ->
                            storage.recomputations()
                                    .put(transaction, new Open(formula.written(), 0)));
            storage.recomputations().revised(transaction, REVISION);
            return true;
        });
    }

    /** Says that there may be more to do. */
    void wake() {
        wanted.release();
    }

    /** What is not done. */
    public List<Progress> progress() {
        var now = live.get();
        try (var session = storage.snapshot()) {
            return storage.recomputations().all(session).stream()
                    .map(open -> {
                        double most =
                                Backfilled.find(now, open.formula())
                                        .map(found ->
                                                now.records().highest(session, found.object()))
                                        .orElse(0L);
                        return new Progress(
                                open.formula(), most == 0 ? 1 : Math.min(1, open.reached() / most));
                    })
                    .toList();
        }
    }

    private void run() {
        while (!closed) {
            try {
                wanted.acquire();
                wanted.drainPermits();
                workOff();
            } catch (InterruptedException _) {
                return;
            }
        }
    }

    private void workOff() throws InterruptedException {
        while (!closed) {
            try {
                if (!isAnyOpen() || !writer.submit(this::step).get(1, TimeUnit.MINUTES)) {
                    return;
                }
                failures = 0;
            } catch (InterruptedException e) {
                throw e;
            } catch (OverloadedException _) {
                Thread.sleep(TROUBLE_WAIT);
            } catch (Exception e) {
                if (closed) {
                    return;
                }
                LOG.warn(
                        "Fields could not be worked out for all records; it is tried once more", e);
                if (++failures >= MOST_FAILURES) {
                    // What is stored says where it goes on then.
                    LOG.error("Fields are left as they are until the next release or start");
                    failures = 0;
                    return;
                }
                Thread.sleep(TROUBLE_WAIT);
            }
        }
    }

    private boolean isAnyOpen() {
        try (var session = storage.snapshot()) {
            return !storage.recomputations().all(session).isEmpty();
        }
    }

    /** Does the next records of the next formula; tells whether there may be more. */
    private boolean step(Transaction transaction) {
        var now = live.get();
        var open = storage.recomputations().all(transaction);
        for (var one : open) {
            if (Backfilled.find(now, one.formula()).isEmpty()) {
                // A later release took it away.
                storage.recomputations().remove(transaction, one.formula());
            }
        }
        var next =
                open.stream()
                        .filter(one -> Backfilled.find(now, one.formula()).isPresent())
                        .min(Comparator.comparingInt(one -> rank(now, one)));
        if (next.isEmpty()) {
            return false;
        }
        var field = Backfilled.find(now, next.get().formula()).orElseThrow();
        long reached =
                new Backfill(now, transaction, storage.events(), Actor.SYSTEM, clock.instant())
                        .some(field, next.get().reached());
        if (reached < 0) {
            storage.recomputations().remove(transaction, next.get().formula());
            LOG.info("{} is worked out for all records", next.get().formula());
        } else {
            storage.recomputations().put(transaction, new Open(next.get().formula(), reached));
        }
        return true;
    }

    private static int rank(LiveRelease now, Open open) {
        return Backfilled.find(now, open.formula()).map(Backfilled::rank).orElse(Integer.MAX_VALUE);
    }

    @Override
    public void close() {
        closed = true;
        thread.interrupt();
        try {
            thread.join(Duration.ofSeconds(10));
        } catch (InterruptedException _) {
            Thread.currentThread().interrupt();
        }
    }
}
