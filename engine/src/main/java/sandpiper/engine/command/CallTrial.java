package sandpiper.engine.command;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.HistoryStorage.ValueChange;
import sandpiper.engine.trace.TraceStep;

/**
 * What calling a function would do. Nothing of it is kept, and no event leaves.
 *
 * @param result what it gives back, or {@code null} when it gives nothing back or was stopped
 * @param faults what would keep it from being done
 * @param differences the records it would change
 * @param events the events it would raise
 * @param notes why something came to null
 */
public record CallTrial(
        Outcome.@Nullable Result result,
        List<Fault> faults,
        List<Fault> warnings,
        List<Difference> differences,
        List<RaisedEvent> events,
        List<String> notes,
        List<TraceStep> steps) {

    /**
     * A record that would be another.
     *
     * @param what {@code created}, {@code changed}, {@code retired} or {@code restored}
     */
    public record Difference(String object, String key, String what, List<ValueChange> changes) {}

    /** An event with what it tells. */
    public record RaisedEvent(String name, Map<String, @Nullable Object> data) {}
}
