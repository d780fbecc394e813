package sandpiper.engine.writer;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.port.ConflictException;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.StorageException;

/**
 * As many threads as there may be transactions. Each job has one of its own; when others changed
 * the same at that moment, or a release came in between, it is done again from its beginning: in
 * turn with others of this process that met the same, and after a wait that grows and is never
 * quite the same. Jobs in an order share a transaction, each behind a mark of its own. Nobody is
 * answered before the commit.
 */
final class ParallelWriter implements Writer {
    private static final Logger LOG = LoggerFactory.getLogger(ParallelWriter.class);

    /** Tries of one transaction; with the waits between them some seconds. */
    private static final int MOST_TRIES = 60;

    /** How long a database that does not answer is asked again before whoever waits is told. */
    private static final long LONGEST_LOST_NANOS = Duration.ofSeconds(3).toNanos();

    private static final long SHORTEST_WAIT_MICROS = 500;
    private static final long LONGEST_WAIT_MICROS = 100_000;

    /** Jobs in an order that share a transaction: what is done again when it conflicts. */
    private static final int LARGEST_GROUP = 64;

    private final Storage storage;
    private final int longestQueue;
    private final WriteMetrics metrics;
    private final BlockingQueue<Entry<?>> queue = new LinkedBlockingQueue<>();
    private final AtomicInteger rows = new AtomicInteger();
    private final ReentrantLock following = new ReentrantLock();
    private final ReentrantLock conflicting = new ReentrantLock(true);
    private final List<Thread> threads = new ArrayList<>();
    private volatile Runnable afterCommit = () -> {};
    private volatile @Nullable Follower follower;
    private volatile boolean closed;

    ParallelWriter(Storage storage, int longestQueue, WriteMetrics metrics) {
        this.storage = storage;
        this.longestQueue = longestQueue;
        this.metrics = metrics;
        for (int i = 1; i <= storage.writers(); i++) {
            threads.add(Thread.ofPlatform().name("sandpiper-writer-" + i).start(this::run));
        }
    }

    @Override
    public void afterCommit(Runnable told) {
        afterCommit = told;
    }

    @Override
    public void follow(Follower other) {
        follower = other;
    }

    @Override
    public <T> Queued<T> submit(WriteJob<T> job, int size) {
        return queue(new Entry<>(List.of(new Turn<>(job)), null, size)).getFirst();
    }

    @Override
    public <T> List<Queued<T>> submitInOrder(List<WriteJob<T>> jobs) {
        return queue(new Entry<>(jobs.stream().map(Turn::new).toList(), null, jobs.size()));
    }

    @Override
    public <T> Queued<T> submitAlone(WriteJob<T> job, Consumer<T> served) {
        return queue(new Entry<>(List.of(new Turn<>(job)), served, 1)).getFirst();
    }

    private <T> List<Queued<T>> queue(Entry<T> entry) {
        if (closed) {
            throw new IllegalStateException("The service is stopping and takes no more changes.");
        }
        // One job alone is taken whatever its size.
        int before = rows.getAndAdd(entry.size);
        if (before > 0 && before + entry.size > longestQueue) {
            rows.addAndGet(-entry.size);
            throw new OverloadedException(before);
        }
        queue.add(entry);
        return entry.turns.stream().map(turn -> turn.future).toList();
    }

    @Override
    public int waiting() {
        return rows.get();
    }

    private void run() {
        while (!closed || !queue.isEmpty()) {
            try {
                var entry = queue.poll(100, TimeUnit.MILLISECONDS);
                if (entry != null) {
                    rows.addAndGet(-entry.size);
                    work(entry);
                }
            } catch (InterruptedException _) {
                closed = true;
            } catch (RuntimeException | StackOverflowError e) {
                LOG.error("The writer met something unexpected and goes on", e);
            } catch (Error e) {
                LastWord.end(e);
            }
        }
    }

    private <T> void work(Entry<T> entry) {
        var wanted = entry.turns.stream().filter(turn -> turn.future.begin()).toList();
        for (int from = 0; from < wanted.size(); from += LARGEST_GROUP) {
            var group = wanted.subList(from, Math.min(from + LARGEST_GROUP, wanted.size()));
            try {
                untilDone(group, entry.served);
            } catch (RuntimeException | StackOverflowError e) {
                var cause =
                        e instanceof RuntimeException known ? known : new IllegalStateException(e);
                group.forEach(turn -> turn.future.completeExceptionally(cause));
            }
        }
    }

    private <T> void untilDone(List<Turn<T>> group, @Nullable Consumer<T> served) {
        long start = System.nanoTime();
        for (int tried = 1; ; tried++) {
            // Those that met others once go one after the other here, or they would meet again.
            boolean inTurn = tried > 1 && served == null;
            if (inTurn) {
                conflicting.lock();
            }
            try {
                if (once(group, served)) {
                    return;
                }
            } catch (ConflictException e) {
                metrics.conflicted(e.isLost());
                if (isOver(e, tried, System.nanoTime() - start)) {
                    throw e;
                }
            } finally {
                if (inTurn) {
                    conflicting.unlock();
                }
            }
            if (tried > 1) {
                pause(tried);
            }
        }
    }

    private boolean isOver(ConflictException e, int tried, long nanos) {
        return tried >= MOST_TRIES || (e.isLost() && (closed || nanos > LONGEST_LOST_NANOS));
    }

    /** Runs jobs in one transaction; tells whether they went by the live release. */
    private <T> boolean once(List<Turn<T>> group, @Nullable Consumer<T> served) {
        boolean alone = served != null;
        long start = System.nanoTime();
        int live;
        boolean followed;
        try (var transaction = storage.begin(alone)) {
            live = storage.release(transaction);
            followed = isFollowed(live);
            if (followed) {
                if (alone) {
                    // Whoever sees the release that this makes waits until it is served.
                    following.lock();
                }
                try {
                    boolean marked = group.size() > 1;
                    group.forEach(turn -> turn.run(transaction, marked));
                    if (marked || group.getFirst().isKept()) {
                        transaction.commit();
                        afterCommit.run();
                    }
                    if (served != null) {
                        group.forEach(turn -> turn.tell(served));
                    }
                } finally {
                    if (alone) {
                        following.unlock();
                    }
                }
                metrics.committed(group.size(), System.nanoTime() - start);
            }
        }
        if (!followed) {
            catchUp(live);
            return false;
        }
        // Not before the end: who is refused and comes back at once would meet his own locks.
        group.forEach(Turn::answer);
        return true;
    }

    private boolean isFollowed(int live) {
        var known = follower;
        return known == null || known.number() == live;
    }

    private void catchUp(int live) {
        following.lock();
        try {
            var known = follower;
            if (known != null && known.number() < live) {
                known.follow(live);
            }
        } finally {
            following.unlock();
        }
    }

    /** Never quite the same for two, or they would meet again. */
    private static void pause(int tried) {
        long most = Math.min(LONGEST_WAIT_MICROS, SHORTEST_WAIT_MICROS << Math.min(tried, 20));
        try {
            TimeUnit.MICROSECONDS.sleep(ThreadLocalRandom.current().nextLong(most / 2, most + 1));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new StorageException("The wait for storing was interrupted.", e);
        }
    }

    @Override
    public void close() {
        closed = true;
        long end = System.nanoTime() + Duration.ofSeconds(30).toNanos();
        for (var thread : threads) {
            try {
                thread.join(Duration.ofNanos(Math.max(1, end - System.nanoTime())));
            } catch (InterruptedException _) {
                Thread.currentThread().interrupt();
                return;
            }
        }
    }

    /** Jobs that were handed in together; {@code served} is there for one that changes tables. */
    private static final class Entry<T> {
        private final List<Turn<T>> turns;
        private final @Nullable Consumer<T> served;
        private final int size;

        Entry(List<Turn<T>> turns, @Nullable Consumer<T> served, int size) {
            this.turns = turns;
            this.served = served;
            this.size = size;
        }
    }
}
