package sandpiper.engine.port;

import java.time.LocalDate;
import java.util.List;
import sandpiper.engine.call.FailedCall;
import sandpiper.engine.call.Use;

/** How services are called. */
public interface TrafficStorage {
    /** Adds to what is known of the days. */
    void add(Transaction transaction, List<Use> uses);

    /** All uses from a day on. */
    List<Use> since(Session session, LocalDate day);

    /** Keeps failed calls; only the latest are kept for long. */
    void addFailed(Transaction transaction, List<FailedCall> failed);

    /** The latest failed calls, newest first. */
    List<FailedCall> failed(Session session, int limit);
}
