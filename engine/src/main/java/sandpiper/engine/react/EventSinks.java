package sandpiper.engine.react;

import sandpiper.engine.port.EventStorage;
import sandpiper.engine.writer.WriteMetrics;

/**
 * Where events go that are raised, and who hears them.
 *
 * @param metrics are told what rules take
 */
public record EventSinks(EventStorage events, Listeners listeners, WriteMetrics metrics) {
    /** Where nobody is told what rules take. */
    public EventSinks(EventStorage events, Listeners listeners) {
        this(events, listeners, WriteMetrics.NONE);
    }
}
