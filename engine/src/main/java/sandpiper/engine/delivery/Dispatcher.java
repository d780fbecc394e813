package sandpiper.engine.delivery;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.BooleanSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.event.Delivery.Target;
import sandpiper.engine.port.ConflictException;
import sandpiper.engine.port.Storage;
import sandpiper.engine.writer.Writer;

/**
 * The thread that hands events on. It is woken after a commit that raised some, and looks by itself
 * when something is due.
 */
final class Dispatcher implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Dispatcher.class);

    /** Longest sleep; schedules are looked at this often. */
    private static final Duration LONGEST_SLEEP = Duration.ofSeconds(1);

    /** Shortest sleep when nothing can be done yet. */
    private static final Duration SHORTEST_SLEEP = Duration.ofMillis(20);

    /** Events and deliveries are kept this long after they are over. */
    private static final Duration KEPT = Duration.ofDays(30);

    private static final Duration HOUSEKEEPING = Duration.ofHours(1);

    private final Storage storage;
    private final Writer writer;
    private final Clock clock;
    private final FanOut fanOut;
    private final Reactions reactions;
    private final BooleanSupplier timetable;
    private final Runnable webhooksWait;
    private final ReentrantLock lock = new ReentrantLock();
    private final Condition woken = lock.newCondition();
    private boolean wake;
    private Instant tidied;
    private volatile boolean closed;
    private final Thread thread;

    /**
     * Made, not started.
     *
     * @param timetable does what is due at a time; tells whether there was anything
     * @param webhooksWait is told when there is something for webhooks
     */
    Dispatcher(
            Storage storage,
            Writer writer,
            Clock clock,
            FanOut fanOut,
            Reactions reactions,
            BooleanSupplier timetable,
            Runnable webhooksWait) {
        this.storage = storage;
        this.writer = writer;
        this.clock = clock;
        this.fanOut = fanOut;
        this.reactions = reactions;
        this.timetable = timetable;
        this.webhooksWait = webhooksWait;
        this.tidied = clock.instant();
        this.thread = Thread.ofPlatform().name("sandpiper-events").unstarted(this::run);
    }

    void start() {
        thread.start();
    }

    /** Says that there is something to do. */
    void wake() {
        lock.lock();
        try {
            wake = true;
            woken.signalAll();
        } finally {
            lock.unlock();
        }
    }

    private void run() {
        while (!closed) {
            try {
                if (!step()) {
                    sleep(untilDue());
                }
            } catch (ConflictException e) {
                LOG.warn("Handing events on waits: {}", e.getMessage());
                sleep(LONGEST_SLEEP);
            } catch (RuntimeException e) {
                if (!closed) {
                    LOG.error("Handing events on met something unexpected and goes on", e);
                    sleep(LONGEST_SLEEP);
                }
            }
        }
    }

    /** Does some of what there is to do; tells whether there was anything. */
    private boolean step() {
        // Each for itself: what one of them stumbles over keeps the others back no longer than
        // once.
        boolean due = guarded(timetable);
        boolean handedOn = guarded(this::handOn);
        boolean reacted = guarded(reactions::run);
        tidy();
        return due || handedOn || reacted;
    }

    private boolean guarded(BooleanSupplier work) {
        try {
            return work.getAsBoolean();
        } catch (ConflictException e) {
            // It is over soon, and is tried again at the next look.
            LOG.warn("Handing events on waits: {}", e.getMessage());
            return false;
        } catch (RuntimeException e) {
            if (!closed) {
                LOG.error("Handing events on met something unexpected and goes on", e);
            }
            return false;
        }
    }

    private boolean handOn() {
        if (storage.writers() > 1 && fanOut.areArriving()) {
            writer.write(transaction -> {
                fanOut.arrive(transaction);
                return true;
            });
        }
        var step = fanOut.next();
        if (!step.isEmpty()) {
            boolean stored = writer.write(transaction -> fanOut.store(transaction, step));
            if (stored && step.reaches(Target.Kind.WEBHOOK)) {
                webhooksWait.run();
            }
        }
        return !step.isEmpty();
    }

    private void tidy() {
        var now = clock.instant();
        if (tidied.plus(HOUSEKEEPING).isAfter(now)) {
            return;
        }
        tidied = now;
        writer.write(transaction -> {
            storage.events().forgetBefore(transaction, now.minus(KEPT));
            return true;
        });
    }

    private Duration untilDue() {
        try (var session = storage.snapshot()) {
            var handler = storage.events().nextDue(session, Target.Kind.HANDLER);
            var schedule = storage.events().nextDue(session, Target.Kind.SCHEDULE);
            var next =
                    handler.isPresent() && schedule.isPresent()
                            ? (handler.get().isBefore(schedule.get()) ? handler : schedule)
                            : handler.or(() -> schedule);
            var wait =
                    next.map(due -> Duration.between(clock.instant(), due)).orElse(LONGEST_SLEEP);
            return wait.compareTo(SHORTEST_SLEEP) < 0
                    ? SHORTEST_SLEEP
                    : wait.compareTo(LONGEST_SLEEP) > 0 ? LONGEST_SLEEP : wait;
        }
    }

    private void sleep(Duration time) {
        lock.lock();
        try {
            long left = time.toNanos();
            while (!wake && !closed && left > 0) {
                left = woken.awaitNanos(left);
            }
            wake = false;
        } catch (InterruptedException _) {
            closed = true;
        } finally {
            lock.unlock();
        }
    }

    /** Ends after what it is doing now; what is left is done at the next start. */
    @Override
    public void close() {
        closed = true;
        wake();
        if (!thread.isAlive()) {
            return;
        }
        try {
            thread.join(Duration.ofSeconds(10));
        } catch (InterruptedException _) {
            Thread.currentThread().interrupt();
        }
    }
}
