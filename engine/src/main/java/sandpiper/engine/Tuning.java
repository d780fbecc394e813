package sandpiper.engine;

import sandpiper.engine.delivery.Backoff;
import sandpiper.engine.outside.OutsideServices;
import sandpiper.engine.writer.WriteMetrics;

/**
 * How an engine is set up.
 *
 * @param longestQueue changes that may wait to be written; more are refused at once
 * @param ofHandlers waits between the tries of handlers that fail
 * @param metrics is told how writing goes
 * @param schedules whether what is due at a time is done; not so on a copy
 * @param outside asks services outside
 */
public record Tuning(
        int longestQueue,
        Backoff ofHandlers,
        WriteMetrics metrics,
        boolean schedules,
        OutsideServices outside) {
    /** At a usual rate this queue is a few seconds of work. */
    public static final Tuning USUAL =
            new Tuning(10_000, Backoff.OF_HANDLERS, WriteMetrics.NONE, true, OutsideServices.NONE);

    /** The same with other waits between the tries of handlers. */
    public Tuning with(Backoff other) {
        return new Tuning(longestQueue, other, metrics, schedules, outside);
    }

    /** The same with other services outside. */
    public Tuning with(OutsideServices other) {
        return new Tuning(longestQueue, ofHandlers, metrics, schedules, other);
    }
}
