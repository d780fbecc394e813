package sandpiper.engine.traffic;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import sandpiper.engine.port.TraceStorage;
import sandpiper.engine.trace.Trace;
import sandpiper.engine.writer.Transactions;

/** Accounts of requests, of which the last ones are kept. Safe for use by many threads. */
public final class KeptTraces {
    private final TraceStorage storage;
    private final Transactions transactions;

    public KeptTraces(TraceStorage storage, Transactions transactions) {
        this.storage = storage;
        this.transactions = transactions;
    }

    /** The last ones without their steps, newest first. */
    public List<Trace> latest(int limit) {
        return transactions.read(session -> storage.latest(session, limit));
    }

    public Optional<Trace> find(UUID id) {
        return transactions.read(session -> storage.find(session, id));
    }
}
