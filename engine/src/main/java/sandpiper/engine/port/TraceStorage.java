package sandpiper.engine.port;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import sandpiper.engine.trace.Trace;

/** Accounts of requests; only the last ones are kept. */
public interface TraceStorage {
    void put(Transaction transaction, Trace trace);

    /** The last ones without their steps, newest first. */
    List<Trace> latest(Session session, int limit);

    Optional<Trace> find(Session session, UUID id);
}
