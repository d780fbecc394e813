package sandpiper.engine.writer;

import java.util.function.Consumer;
import java.util.function.Function;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;

/**
 * Reading and writing of what is not a record: accounts, settings, counts of calls. Safe for use by
 * many threads.
 */
public final class Transactions {
    private static final Logger LOG = LoggerFactory.getLogger(Transactions.class);

    private final Storage storage;
    private final Writer writer;

    public Transactions(Storage storage, Writer writer) {
        this.storage = storage;
        this.writer = writer;
    }

    /** Reads on one consistent state. */
    public <T> T read(Function<Session, T> reading) {
        try (var session = storage.snapshot()) {
            return reading.apply(session);
        }
    }

    /** Writes, and waits until it is durable; what an exception leaves behind is undone. */
    public <T> T write(Function<Transaction, T> writing) {
        return writer.write(writing::apply);
    }

    /** Writes something that has no answer. */
    public void change(Consumer<Transaction> writing) {
        write(transaction -> {
            writing.accept(transaction);
            return true;
        });
    }

    /**
     * Writes something that nobody waits for, such as a note; when it cannot be written it is left
     * out, and the log says so.
     */
    @SuppressWarnings("FutureReturnValueIgnored") // nobody waits for it
    public void later(Consumer<Transaction> writing) {
        try {
            writer.submit(
                            transaction -> {
                                writing.accept(transaction);
                                return true;
                            })
                    .whenComplete((_, failure) -> {
                        if (failure != null) {
                            LOG.warn("A note could not be written: {}", failure.toString());
                        }
                    });
        } catch (OverloadedException | IllegalStateException e) {
            LOG.warn("A note could not be written: {}", e.getMessage());
        }
    }
}
