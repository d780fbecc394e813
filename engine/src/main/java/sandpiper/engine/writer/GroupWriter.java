package sandpiper.engine.writer;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.AskedLanguages;

/**
 * The one thread that writes. It takes all jobs that wait, runs each behind a mark of its own in
 * one transaction, commits once, and only then answers them all: many callers share one wait for
 * the disk, and none is answered before its change is durable. A job that fails is undone to its
 * mark and does not hurt its neighbours.
 *
 * <p>It never waits for more jobs to come, which would slow a lone caller.
 */
final class GroupWriter implements Writer {
    private static final Logger LOG = LoggerFactory.getLogger(GroupWriter.class);

    /** Jobs of one transaction; beyond this a larger group saves nothing measurable. */
    private static final int LARGEST_GROUP = 128;

    /**
     * Work in one transaction before it is committed, so that the first of a group does not wait
     * for the last.
     */
    private static final long LONGEST_GROUP_NANOS = Duration.ofMillis(20).toNanos();

    private final Storage storage;
    private final BlockingQueue<Entry<?>> queue;
    private final AtomicInteger rows = new AtomicInteger();
    private final int longestQueue;
    private final WriteMetrics metrics;
    private final Thread thread;
    private volatile boolean closed;
    private volatile Runnable afterCommit = () -> {};

    @Override
    public void afterCommit(Runnable told) {
        afterCommit = told;
    }

    /**
     * Starts the thread.
     *
     * @param longestQueue changes that may wait; more are refused at once
     */
    GroupWriter(Storage storage, int longestQueue, WriteMetrics metrics) {
        this.storage = storage;
        this.metrics = metrics;
        this.longestQueue = longestQueue;
        this.queue = new LinkedBlockingQueue<>();
        this.thread = Thread.ofPlatform().name("sandpiper-writer").start(this::run);
    }

    @Override
    public void follow(Follower follower) {
        // Nobody else releases.
    }

    @Override
    public <T> Queued<T> submit(WriteJob<T> job, int rows) {
        return queue(new Entry<>(job, false, null, rows));
    }

    @Override
    public <T> List<Queued<T>> submitInOrder(List<WriteJob<T>> jobs) {
        return jobs.stream().map(this::submit).toList();
    }

    @Override
    public <T> Queued<T> submitAlone(WriteJob<T> job, Consumer<T> afterCommit) {
        return queue(new Entry<>(job, true, afterCommit, 1));
    }

    private <T> Queued<T> queue(Entry<T> entry) {
        if (closed) {
            throw new IllegalStateException("The service is stopping and takes no more changes.");
        }
        // One job alone is taken whatever its size.
        int before = rows.getAndAdd(entry.rows);
        if (before > 0 && before + entry.rows > longestQueue) {
            rows.addAndGet(-entry.rows);
            throw new OverloadedException(before);
        }
        queue.add(entry);
        return entry.future;
    }

    @Override
    public int waiting() {
        return rows.get();
    }

    private void run() {
        var group = new ArrayList<Entry<?>>();
        while (!closed || !queue.isEmpty()) {
            try {
                var first = queue.poll(100, TimeUnit.MILLISECONDS);
                if (first != null && taken(first)) {
                    group.clear();
                    group.add(first);
                    runGroup(group);
                }
            } catch (InterruptedException _) {
                closed = true;
            } catch (RuntimeException | StackOverflowError e) {
                LOG.error("The writer met something unexpected and goes on", e);
                fail(group, new IllegalStateException(e));
            } catch (Error e) {
                LastWord.end(e);
            }
        }
    }

    /** Whether somebody still waits for a job that has come to its turn. */
    private boolean taken(Entry<?> entry) {
        rows.addAndGet(-entry.rows);
        return entry.future.begin();
    }

    private void runGroup(List<Entry<?>> group) {
        boolean alone = group.getFirst().alone;
        long start = System.nanoTime();
        try (var transaction = storage.begin(alone)) {
            group.getFirst().run(transaction);
            while (!alone
                    && group.size() < LARGEST_GROUP
                    && System.nanoTime() - start < LONGEST_GROUP_NANOS) {
                var next = queue.peek();
                if (next == null || next.alone) {
                    break;
                }
                queue.remove();
                if (taken(next)) {
                    group.add(next);
                    next.run(transaction);
                }
            }
            transaction.commit();
            afterCommit.run();
        } catch (RuntimeException e) {
            fail(group, e);
            return;
        }
        metrics.committed(group.size(), System.nanoTime() - start);
        group.forEach(Entry::answer);
    }

    private static void fail(List<Entry<?>> group, RuntimeException cause) {
        group.forEach(entry -> entry.future.completeExceptionally(cause));
    }

    @Override
    public void close() {
        closed = true;
        // Nothing to do, given up at once: it wakes the thread that would wait for a job.
        var wake = new Entry<>(_ -> true, false, null, 0);
        wake.future.giveUp();
        queue.add(wake);
        try {
            thread.join(Duration.ofSeconds(30));
        } catch (InterruptedException _) {
            Thread.currentThread().interrupt();
        }
    }

    private static final class Entry<T> {
        private final WriteJob<T> job;
        private final boolean alone;
        private final @Nullable Consumer<T> afterCommit;
        private final AskedLanguages languages = AskedLanguages.current();
        private final int rows;
        private final Queued<T> future = new Queued<>();
        private @Nullable T result;
        private @Nullable RuntimeException failure;

        Entry(WriteJob<T> job, boolean alone, @Nullable Consumer<T> afterCommit, int rows) {
            this.rows = rows;
            this.job = job;
            this.alone = alone;
            this.afterCommit = afterCommit;
        }

        void run(Transaction transaction) {
            int before = transaction.marks();
            transaction.mark();
            try {
                var done = languages.in(() -> job.run(transaction));
                result = done;
                if (job.keeps(done)) {
                    transaction.keepSinceMark();
                } else {
                    transaction.undoToMark();
                }
            } catch (StorageException e) {
                // After this the transaction itself cannot be trusted, so the whole group fails.
                throw e;
            } catch (RuntimeException e) {
                failure = e;
                undo(transaction, before);
            } catch (StackOverflowError e) {
                failure = new IllegalStateException(e);
                undo(transaction, before);
            }
        }

        /** What a job does may have marks of its own, which an exception leaves behind. */
        private static void undo(Transaction transaction, int before) {
            do {
                transaction.undoToMark();
            } while (transaction.marks() > before);
        }

        void answer() {
            if (failure != null) {
                future.completeExceptionally(failure);
                return;
            }
            var done = java.util.Objects.requireNonNull(result);
            if (afterCommit != null && job.keeps(done)) {
                afterCommit.accept(done);
            }
            future.complete(done);
        }
    }
}
