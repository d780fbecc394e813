package sandpiper.engine.write;

import sandpiper.engine.port.EventStorage;

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
