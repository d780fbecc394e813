package sandpiper.engine.port;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;

/** How services are called. */
public interface TrafficStorage {
    /**
     * What is called.
     *
     * @param resource empty when the call named none
     * @param operation {@code read}, the name of a call; empty when it is not known
     * @param caller the client or user
     */
    record Called(
            String service,
            int version,
            String resource,
            String operation,
            String protocol,
            String caller) {}

    /**
     * The calls of one kind on one day (UTC).
     *
     * @param errors calls that were answered with an error
     * @param micros the time they took together, in microseconds
     * @param slowest the time of the slowest, in microseconds
     */
    record Use(
            LocalDate day,
            Called called,
            long calls,
            long errors,
            long micros,
            long slowest,
            Instant last) {}

    /**
     * A call that failed.
     *
     * @param message what was wrong, as the caller was told
     * @param trace id of the account of it; empty when there is none
     */
    record FailedCall(Instant at, Called called, int status, String message, String trace) {}

    /** Adds to what is known of the days. */
    void add(Transaction transaction, List<Use> uses);

    /** All uses from a day on. */
    List<Use> since(Session session, LocalDate day);

    /** Keeps failed calls; only the latest are kept for long. */
    void addFailed(Transaction transaction, List<FailedCall> failed);

    /** The latest failed calls, newest first. */
    List<FailedCall> failed(Session session, int limit);
}
