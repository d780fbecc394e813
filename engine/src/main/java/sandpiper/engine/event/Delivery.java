package sandpiper.engine.event;

import java.time.Instant;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * An event on its way to one of those who hear it.
 *
 * @param number internal, 0 until it is stored
 * @param event the event's number
 * @param target who hears it
 * @param record public id of the record it is about; deliveries to one target about one record keep
 *     their order; {@code null} for none
 * @param tries how often it was tried
 * @param due when it is tried next
 * @param doneAt when it was delivered or given up, or {@code null} while it waits
 * @param said what came of the last try, in a sentence; empty before the first
 * @param trace the account of the last try, or {@code null} when there is none
 */
public record Delivery(
        long number,
        long event,
        Target target,
        @Nullable UUID record,
        State state,
        int tries,
        Instant due,
        @Nullable Instant doneAt,
        String said,
        @Nullable UUID trace) {

    /** How far it is. */
    public enum State {
        WAITING,
        DONE,
        /** Given up after the last try, until somebody asks for it again. */
        PARKED
    }

    /** Who hears an event. */
    public record Target(Kind kind, String name) {
        /** Which sort of listener. */
        public enum Kind {
            HANDLER,
            SCHEDULE,
            WEBHOOK
        }

        /** As it is stored and asked for: {@code handler Stay.tellPortOffice}. */
        public String written() {
            return kind.name().toLowerCase(Locale.ROOT) + " " + name;
        }

        /** What {@link #written} wrote, or nothing when the text is none. */
        public static Optional<Target> read(String text) {
            int space = text.indexOf(' ');
            for (var kind : Kind.values()) {
                if (space > 0 && text.substring(0, space).equalsIgnoreCase(kind.name())) {
                    return Optional.of(new Target(kind, text.substring(space + 1)));
                }
            }
            return Optional.empty();
        }
    }

    /** Given up. */
    public Delivery parked(Instant now) {
        return new Delivery(
                number, event, target, record, State.PARKED, tries, due, now, said, trace);
    }

    /** To be tried as if it never had been. */
    public Delivery again(Instant now) {
        return new Delivery(
                number, event, target, record, State.WAITING, 0, now, null, said, trace);
    }

    /** The same, due later. */
    public Delivery putOff(Instant until) {
        return new Delivery(number, event, target, record, state, tries, until, null, said, trace);
    }

    /** A first try that is due at once. */
    public static Delivery of(Event event, Target target, Instant now) {
        return new Delivery(
                0, event.number(), target, event.record(), State.WAITING, 0, now, null, "", null);
    }
}
