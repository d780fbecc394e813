package sandpiper.engine.event;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A fact that is stored with the change that raised it.
 *
 * @param number its place in the order of all events; 0 until it is stored
 * @param name {@code StayEnded}, {@code Stay.created}; of a time that has come the schedule's name
 * @param kind whether it is a fact to be published
 * @param unit of work it was raised in; events of one change share it
 * @param object whose record it is about, or {@code null} when it is about none
 * @param record public id of that record, or {@code null}
 * @param key of that record for people and other systems, or {@code null}
 * @param by who made the change
 * @param via the way in
 * @param depth how many events led to it, each by a handler of the one before
 * @param data what it tells, in plain form
 */
public record Event(
        long number,
        UUID id,
        String name,
        Kind kind,
        UUID unit,
        @Nullable String object,
        @Nullable UUID record,
        @Nullable String key,
        Instant at,
        String by,
        String via,
        int depth,
        Map<String, @Nullable Object> data) {
    public Event {
        data = new LinkedHashMap<>(data);
    }

    /** What sort of fact it is. */
    public enum Kind {
        /** Something has happened. */
        RAISED,
        /** A time has come for a record; for its schedule only. */
        DUE,
        /** A webhook is tried out; for that webhook only. */
        TEST
    }

    /** The same with its place in the order. */
    public Event numbered(long itsNumber) {
        return new Event(
                itsNumber, id, name, kind, unit, object, record, key, at, by, via, depth, data);
    }
}
