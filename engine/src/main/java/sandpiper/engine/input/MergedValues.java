package sandpiper.engine.input;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.work.ItemState;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Slots;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.type.FileType;

/**
 * What a change says of values that have members of their own, a text in several languages or an
 * amount with its currency, put over what is there: a member that is not named stays, {@code null}
 * takes one away (RFC 7396).
 */
public final class MergedValues {
    private MergedValues() {}

    /** The values as they shall be, in plain form. */
    public static Map<String, @Nullable Object> of(
            RecordState record, Map<String, @Nullable Object> values) {
        var merged = merged(record.object().fields(), record.slots(), values);
        for (var part : record.object().parts()) {
            if (merged.get(part.name()) instanceof List<?> items) {
                var there = record.items(part);
                var result = new ArrayList<@Nullable Object>();
                for (int i = 0; i < items.size(); i++) {
                    result.add(
                            items.get(i) instanceof Map<?, ?> item
                                    ? merged(part.fields(), slots(there, item, i), named(item))
                                    : items.get(i));
                }
                merged.put(part.name(), result);
            }
        }
        return merged;
    }

    /** What an item is about: the one of its line, or the one in its place when it names none. */
    private static @Nullable Slots slots(List<ItemState> there, Map<?, ?> item, int place) {
        if (item.get("line") instanceof Long line) {
            return there.stream()
                    .filter(one -> one.line() == line)
                    .map(ItemState::slots)
                    .findFirst()
                    .orElse(null);
        }
        return place < there.size() ? there.get(place).slots() : null;
    }

    private static Map<String, @Nullable Object> named(Map<?, ?> map) {
        var named = new LinkedHashMap<String, @Nullable Object>();
        map.forEach((name, value) -> named.put(String.valueOf(name), value));
        return named;
    }

    private static Map<String, @Nullable Object> merged(
            Fields fields, @Nullable Slots slots, Map<String, @Nullable Object> values) {
        var merged = new LinkedHashMap<>(values);
        if (slots != null) {
            for (var field : fields) {
                if (merged.get(field.name()) instanceof Map<?, ?> members) {
                    merged.put(field.name(), over(field, slots.get(field), members));
                }
            }
        }
        return merged;
    }

    private static @Nullable Object over(Field field, @Nullable Object stored, Map<?, ?> members) {
        if (field.isReference()
                || stored == null
                || !(field.type().write(stored) instanceof Map<?, ?> there)) {
            return members;
        }
        var all = named(there);
        if (field.type() instanceof FileType && members.get(FileType.CONTENT) != null) {
            // Other bytes are another file; what is not said of it is not what was said of the one.
            all.keySet().retainAll(Set.of(FileType.NAME));
        }
        all.putAll(named(members));
        return all.values().stream().allMatch(Objects::isNull) ? null : all;
    }
}
