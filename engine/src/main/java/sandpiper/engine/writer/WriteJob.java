package sandpiper.engine.writer;

import sandpiper.engine.port.Transaction;

/** Something to be done by the writer. */
@FunctionalInterface
public interface WriteJob<T> {
    /** Does it. What an exception leaves behind is undone. */
    T run(Transaction transaction);

    /** Whether what was done is to be kept; otherwise it is undone. */
    default boolean keeps(T result) {
        return true;
    }
}
