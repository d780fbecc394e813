package sandpiper.engine.writer;

import java.util.Objects;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.AskedLanguages;

/** A job that may be run several times, of which the last counts. For one thread at a time. */
final class Turn<T> {
    final Queued<T> future = new Queued<>();
    private final WriteJob<T> job;
    private final AskedLanguages languages = AskedLanguages.current();
    private @Nullable T result;
    private @Nullable RuntimeException failure;

    Turn(WriteJob<T> job) {
        this.job = job;
    }

    /**
     * Runs it.
     *
     * @param marked whether others share the transaction, so that it is undone for itself
     */
    void run(Transaction transaction, boolean marked) {
        result = null;
        failure = null;
        int before = transaction.marks();
        if (marked) {
            transaction.mark();
        }
        try {
            result = languages.in(() -> job.run(transaction));
        } catch (StorageException e) {
            // After this the transaction itself cannot be trusted.
            throw e;
        } catch (RuntimeException e) {
            failure = e;
        } catch (StackOverflowError e) {
            failure = new IllegalStateException(e);
        }
        if (!marked) {
            return;
        }
        // What a job does may have marks of its own, which an exception leaves behind.
        while (transaction.marks() > before + 1) {
            transaction.undoToMark();
        }
        if (isKept()) {
            transaction.keepSinceMark();
        } else {
            transaction.undoToMark();
        }
    }

    /** Whether what it did is to be kept. */
    boolean isKept() {
        return failure == null && job.keeps(Objects.requireNonNull(result));
    }

    /** Tells of something that is kept. */
    void tell(Consumer<T> told) {
        if (isKept()) {
            told.accept(Objects.requireNonNull(result));
        }
    }

    /** Answers whoever waits. */
    void answer() {
        if (failure != null) {
            future.completeExceptionally(failure);
        } else {
            future.complete(Objects.requireNonNull(result));
        }
    }
}
