package sandpiper.engine.react;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.event.Event;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Moment;
import sandpiper.logic.value.Nothing;
import sandpiper.model.release.Codec;
import sandpiper.model.release.EventType;
import sandpiper.model.release.Field;
import sandpiper.model.release.ValueType;
import sandpiper.model.type.ParsedValue;

/**
 * What a stored event tells, as values of the language. What no longer fits the event's definition,
 * which may have changed since, is null.
 */
public final class EventValues {
    private final ZoneId zone;
    private final References references;

    /** Finds the record a key stands for. */
    @FunctionalInterface
    public interface References {
        /** The keys themselves, for where no records are at hand. */
        References KEYS = (_, key) -> key;

        Object find(Field field, String key);
    }

    public EventValues(ZoneId zone, References references) {
        this.zone = zone;
        this.references = references;
    }

    /** The event with what is known of every event. */
    public Context of(EventType type, Event event) {
        var entries = new LinkedHashMap<String, Object>();
        entries.put("type", event.name());
        entries.put("at", Moment.of(event.at(), zone));
        entries.put("by", event.by());
        for (var field : type.fields().entries()) {
            entries.put(field.name(), value(field.type(), event.data().get(field.name())));
        }
        return new Context(entries);
    }

    private Object value(ValueType type, @Nullable Object plain) {
        if (plain == null) {
            return Nothing.NULL;
        }
        return switch (type) {
            case ValueType.Single(var field) -> single(field, plain);
            case ValueType.Many(var item) -> {
                var list = new ArrayList<Object>();
                for (var one : plain instanceof List<?> many ? many : List.of(plain)) {
                    list.add(value(item, one));
                }
                yield list;
            }
            case ValueType.Group group -> {
                var entries = new LinkedHashMap<String, Object>();
                for (var entry : group.entries()) {
                    entries.put(
                            entry.name(),
                            plain instanceof Map<?, ?> map
                                    ? value(entry.type(), map.get(entry.name()))
                                    : Nothing.NULL);
                }
                yield new Context(entries);
            }
        };
    }

    private Object single(Field field, Object plain) {
        if (field.isReference()) {
            return references.find(field, plain.toString());
        }
        return field.type().read(plain) instanceof ParsedValue.Taken(var stored)
                ? Codec.toLogic(field.type(), stored, zone)
                : Nothing.NULL;
    }
}
