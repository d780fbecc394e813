package sandpiper.engine.port;

import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** How far schedules have come. */
public interface ScheduleStorage {
    /**
     * Where a schedule stands.
     *
     * @param name {@code Vessel.remindOfInsurance}
     * @param ranFor the time it last ran for, or began to wait at
     * @param running the time it runs for now, or {@code null} when it does not
     * @param after number of the last record it was due for in this run
     */
    record Progress(String name, Instant ranFor, @Nullable Instant running, long after) {}

    Optional<Progress> find(Session session, String name);

    /**
     * Takes a schedule for this transaction alone.
     *
     * @return nothing when it is not known, or when another process has it now
     */
    Optional<Progress> claim(Transaction transaction, String name);

    void put(Transaction transaction, Progress progress);
}
