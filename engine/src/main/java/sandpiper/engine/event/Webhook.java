package sandpiper.engine.event;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * An outside address that is told of events.
 *
 * @param address http or https
 * @param events names of those it hears
 * @param filter a condition in FEEL over what an event tells, or {@code null} for every one
 * @param sealedSecret the key that messages are signed with, sealed
 * @param previousSecret the one before, also signed with until {@code previousUntil}, or {@code
 *     null}
 */
public record Webhook(
        String name,
        String label,
        String address,
        List<String> events,
        @Nullable String filter,
        String sealedSecret,
        @Nullable String previousSecret,
        @Nullable Instant previousUntil,
        boolean disabled) {
    public Webhook {
        events = List.copyOf(events);
    }

    /** Whether an event of a name is for it. */
    public boolean hears(String event) {
        return !disabled && events.contains(event);
    }

    /** The same for other events. */
    public Webhook hearing(List<String> others) {
        return new Webhook(
                name,
                label,
                address,
                others,
                filter,
                sealedSecret,
                previousSecret,
                previousUntil,
                disabled);
    }

    public Delivery.Target target() {
        return new Delivery.Target(Delivery.Target.Kind.WEBHOOK, name);
    }
}
