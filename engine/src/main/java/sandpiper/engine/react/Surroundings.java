package sandpiper.engine.react;

import sandpiper.engine.outside.Outside;
import sandpiper.engine.port.EventStorage;
import sandpiper.engine.writer.WriteMetrics;

/**
 * What units of work meet around them: where events go that are raised, who hears them, and
 * services outside.
 *
 * @param metrics are told what rules take
 */
public record Surroundings(
        EventStorage events, Listeners listeners, WriteMetrics metrics, Outside outside) {
    /** Where nobody is told what rules take, and nothing outside is asked. */
    public Surroundings(EventStorage events, Listeners listeners) {
        this(events, listeners, WriteMetrics.NONE, Outside.NONE);
    }
}
