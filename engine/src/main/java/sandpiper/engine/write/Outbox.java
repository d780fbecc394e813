package sandpiper.engine.write;

import sandpiper.engine.port.EventStorage;

/**
 * Where events go that are raised, and who hears them.
 *
 * @param pulse is told what rules take
 */
public record Outbox(EventStorage events, Listeners listeners, Pulse pulse) {
    /** Where nobody is told what rules take. */
    public Outbox(EventStorage events, Listeners listeners) {
        this(events, listeners, Pulse.NONE);
    }
}
