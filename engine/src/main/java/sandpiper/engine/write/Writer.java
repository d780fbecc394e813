package sandpiper.engine.write;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
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
public final class Writer implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Writer.class);

    /** Jobs of one transaction; beyond this a larger group saves nothing measurable. */
    private static final int LARGEST_GROUP = 128;

    /**
     * Work in one transaction before it is committed, so that the first of a group does not wait
     * for the last.
     */
    private static final long LONGEST_GROUP_NANOS = Duration.ofMillis(20).toNanos();

    private final Storage storage;
    private final BlockingQueue<Entry<?>> queue;
    private final Pulse pulse;
    private final Thread thread;
    private volatile boolean closed;
    private volatile Runnable afterCommit = () -> {};

    /** Runs on the writer's thread after each commit; must be quick and not throw. */
    public void afterCommit(Runnable told) {
        afterCommit = told;
    }

    /**
     * Starts the thread.
     *
     * @param longestQueue jobs that may wait; more are refused at once
     */
    public Writer(Storage storage, int longestQueue, Pulse pulse) {
        this.storage = storage;
        this.pulse = pulse;
        this.queue = new ArrayBlockingQueue<>(longestQueue);
        this.thread = Thread.ofPlatform().name("sandpiper-writer").start(this::run);
    }

    /**
     * Queues a job.
     *
     * @return completes after the commit; fails with what the job threw, or with a {@link
     *     StorageException}
     * @throws OverloadedException when too many jobs wait
     */
    public <T> CompletableFuture<T> submit(WriteJob<T> job) {
        return queue(new Entry<>(job, false, null));
    }

    /**
     * Queues a job that changes tables. It gets a transaction to itself.
     *
     * @param afterCommit runs on the writer's thread once the change is durable and before any
     *     other job
     */
    public <T> CompletableFuture<T> submitAlone(WriteJob<T> job, Consumer<T> afterCommit) {
        return queue(new Entry<>(job, true, afterCommit));
    }

    private <T> CompletableFuture<T> queue(Entry<T> entry) {
        if (closed) {
            throw new IllegalStateException("The service is stopping and takes no more changes.");
        }
        if (!queue.offer(entry)) {
            throw new OverloadedException(queue.size());
        }
        return entry.future;
    }

    /** Jobs that wait. */
    public int waiting() {
        return queue.size();
    }

    private void run() {
        var group = new ArrayList<Entry<?>>();
        while (!closed || !queue.isEmpty()) {
            try {
                var first = queue.poll(100, TimeUnit.MILLISECONDS);
                if (first != null) {
                    group.clear();
                    group.add(first);
                    runGroup(group);
                }
            } catch (InterruptedException _) {
                closed = true;
            } catch (RuntimeException e) {
                LOG.error("The writer met something unexpected and goes on", e);
                fail(group, e);
            }
        }
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
                group.add(next);
                next.run(transaction);
            }
            transaction.commit();
            afterCommit.run();
        } catch (RuntimeException e) {
            fail(group, e);
            return;
        }
        pulse.committed(group.size(), System.nanoTime() - start);
        group.forEach(Entry::answer);
    }

    private static void fail(List<Entry<?>> group, RuntimeException cause) {
        group.forEach(entry -> entry.future.completeExceptionally(cause));
    }

    /** Takes no more jobs, finishes those that wait, and stops. */
    @Override
    public void close() {
        closed = true;
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
        private final CompletableFuture<T> future = new CompletableFuture<>();
        private @Nullable T result;
        private @Nullable RuntimeException failure;

        Entry(WriteJob<T> job, boolean alone, @Nullable Consumer<T> afterCommit) {
            this.job = job;
            this.alone = alone;
            this.afterCommit = afterCommit;
        }

        void run(Transaction transaction) {
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
                transaction.undoToMark();
            }
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
