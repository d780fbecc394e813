package sandpiper.engine.work;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.run.BudgetException;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.model.definition.Rounding;
import sandpiper.model.release.Codec;
import sandpiper.model.release.Field;
import sandpiper.model.release.ValueType;
import sandpiper.model.type.ParsedValue;

/**
 * Writes values of the language in plain form, as what a function gives back or an event tells. A
 * record is its key. Numbers are rounded to the decimal places of their type.
 */
public final class PlainValues {
    /** Values one result or event may have, those inside others counted too. */
    private static final int MOST_VALUES = 100_000;

    private final ZoneId zone;
    private final Rounding rounding;
    private final List<String> problems = new ArrayList<>();
    private int written;

    public PlainValues(ZoneId zone, Rounding rounding) {
        this.rounding = rounding;
        this.zone = zone;
    }

    /** What could not be written, to follow a name: "would be too large". */
    public List<String> problems() {
        return problems;
    }

    /**
     * The plain form; {@code null} for nothing.
     *
     * @throws BudgetException when there are too many values
     */
    public @Nullable Object of(ValueType type, Object value) {
        if (++written > MOST_VALUES) {
            throw new BudgetException(
                    "This gives back more than %,d values and was stopped.".formatted(MOST_VALUES));
        }
        if (value == Nothing.NULL) {
            return null;
        }
        return switch (type) {
            case ValueType.Single(var field) -> single(field, value);
            case ValueType.Many(var item) -> {
                var list = new ArrayList<@Nullable Object>();
                for (var one : value instanceof List<?> many ? many : List.of(value)) {
                    list.add(of(item, one));
                }
                yield list;
            }
            case ValueType.Group group -> group(group, value);
        };
    }

    private Map<String, @Nullable Object> group(ValueType.Group group, Object value) {
        var entries = new LinkedHashMap<String, @Nullable Object>();
        for (var entry : group.entries()) {
            entries.put(
                    entry.name(),
                    value instanceof Context context
                            ? of(entry.type(), context.get(entry.name()))
                            : null);
        }
        return entries;
    }

    private @Nullable Object single(Field field, Object value) {
        if (value instanceof RecordValue record) {
            return record.written();
        }
        if (field.isReference()) {
            return value.toString();
        }
        return switch (Codec.toStored(field.type(), value, zone, rounding)) {
            case ParsedValue.Taken(var stored) -> field.type().write(stored);
            case ParsedValue.Refused(_, var message) -> {
                problems.add(message);
                yield null;
            }
        };
    }
}
