package sandpiper.engine.writer;

import java.time.Duration;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Consumer;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.StorageException;

/**
 * Writes, and answers when what was written is durable. How depends on the storage: where one
 * writes at a time, jobs share transactions ({@link GroupWriter}); where many can, each has its own
 * and is done again when others were first ({@link ParallelWriter}). Safe for use by many threads.
 */
public interface Writer extends AutoCloseable {
    /** An answer later than this would find nobody waiting. */
    Duration LONGEST_WAIT = Duration.ofSeconds(60);

    /**
     * Starts the threads.
     *
     * @param longestQueue changes that may wait; more are refused at once
     */
    static Writer of(Storage storage, int longestQueue, WriteMetrics metrics) {
        return storage.writers() > 1
                ? new ParallelWriter(storage, longestQueue, metrics)
                : new GroupWriter(storage, longestQueue, metrics);
    }

    /**
     * Runs on the thread that wrote after each commit, which is the one that ran the jobs of the
     * transaction; must be quick and not throw.
     */
    void afterCommit(Runnable told);

    /** Who follows the releases of other processes; without, the live release is not looked at. */
    void follow(Follower follower);

    /**
     * Queues a job.
     *
     * @return completes after the commit; fails with what the job threw, or with a {@link
     *     StorageException}
     * @throws OverloadedException when too many jobs wait
     */
    default <T> Queued<T> submit(WriteJob<T> job) {
        return submit(job, 1);
    }

    /**
     * The same of a job of some size.
     *
     * @param rows changes it makes; as many wait as with so many jobs of one change
     */
    <T> Queued<T> submit(WriteJob<T> job, int rows);

    /** Queues jobs that are done one after the other, each for itself. */
    <T> List<Queued<T>> submitInOrder(List<WriteJob<T>> jobs);

    /**
     * Runs a job and waits until it is durable.
     *
     * @throws OverloadedException when its turn has not come within a minute, and nothing is done
     * @throws UnfinishedException when it has come, but the job takes longer
     */
    default <T> T write(WriteJob<T> job) {
        return await(submit(job));
    }

    /**
     * Queues a job that changes tables. It gets a transaction to itself, and nobody writes
     * meanwhile.
     *
     * @param afterCommit runs on the thread that wrote once the change is durable and before any
     *     job that goes by it
     */
    <T> Queued<T> submitAlone(WriteJob<T> job, Consumer<T> afterCommit);

    /** Changes that wait. */
    int waiting();

    /** Takes no more jobs, finishes those that wait, and stops. */
    @Override
    void close();

    /** Waits for a job that is queued; see {@link #write}. */
    static <T> T await(CompletableFuture<T> job) {
        return await(job, LONGEST_WAIT);
    }

    /** The same for up to some time. */
    static <T> T await(CompletableFuture<T> job, Duration longest) {
        try {
            return job.get(longest.toSeconds(), TimeUnit.SECONDS);
        } catch (ExecutionException e) {
            if (e.getCause() instanceof RuntimeException cause) {
                throw cause;
            }
            throw new IllegalStateException(e.getCause());
        } catch (TimeoutException e) {
            if (job instanceof Queued<T> queued && queued.giveUp()) {
                throw new OverloadedException(
                        "The service has been busy for %d seconds; nothing of this was done. Try again in a moment."
                                .formatted(longest.toSeconds()));
            }
            throw new UnfinishedException(longest, e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new StorageException("The wait for storing was interrupted.", e);
        }
    }
}
