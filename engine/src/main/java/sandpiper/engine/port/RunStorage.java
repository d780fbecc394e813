package sandpiper.engine.port;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** What functions, handlers and schedules did of late; only the last runs are kept. */
public interface RunStorage {
    /**
     * One run.
     *
     * @param kind {@code function}, {@code handler} or {@code schedule}
     * @param name {@code Stay.checkIn}
     * @param key of the record it ran on; empty for none
     * @param done whether it was done; otherwise it was refused
     * @param said why it was refused, or what it gave back; may be empty
     * @param trace the account of it, or {@code null} when there is none
     */
    record Run(
            Instant at,
            String kind,
            String name,
            String object,
            String key,
            boolean done,
            String said,
            long micros,
            String by,
            String via,
            @Nullable UUID trace) {}

    /**
     * Which runs are asked for.
     *
     * @param name of the function, handler or schedule, or part of it; empty for any
     * @param key of the record, or part of it; empty for any
     * @param done {@code null} for any
     */
    record RunFilter(String name, String key, @Nullable Boolean done, int limit) {}

    void add(Transaction transaction, Run run);

    /** Newest first. */
    List<Run> latest(Session session, RunFilter wanted);
}
