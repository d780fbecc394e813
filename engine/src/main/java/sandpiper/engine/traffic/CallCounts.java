package sandpiper.engine.traffic;

import java.time.LocalDate;
import java.util.List;
import sandpiper.engine.call.FailedCall;
import sandpiper.engine.call.Use;
import sandpiper.engine.port.TrafficStorage;
import sandpiper.engine.writer.Transactions;

/** Counts of calls by day, and the last that failed. Safe for use by many threads. */
public final class CallCounts {
    private final TrafficStorage storage;
    private final Transactions transactions;

    public CallCounts(TrafficStorage storage, Transactions transactions) {
        this.storage = storage;
        this.transactions = transactions;
    }

    /** What is known at one moment: uses since a day, and failed calls, newest first. */
    public record Known(List<Use> uses, List<FailedCall> failed) {}

    /** All uses from a day (UTC) on, and the latest failed calls. */
    public Known since(LocalDate day, int mostFailed) {
        return transactions.read(session ->
                new Known(storage.since(session, day), storage.failed(session, mostFailed)));
    }

    /** Adds to what is known. */
    public void add(List<Use> uses, List<FailedCall> failed) {
        transactions.change(transaction -> {
            storage.add(transaction, uses);
            storage.addFailed(transaction, failed);
        });
    }
}
