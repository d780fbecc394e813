package sandpiper.engine.input;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Map;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Row;
import sandpiper.model.definition.DefaultValue;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.type.TemporalType;

/** Gives new records and line items what they have when nobody says anything else. */
public final class Defaults {
    private final Instant now;

    /** {@code now} is the moment of the work; in the zone of an object it is its today. */
    public Defaults(Instant now) {
        this.now = now;
    }

    /** Fills every empty field that has a default. */
    public void fill(Row row) {
        fill(row, Map.of());
    }

    /** The same where values were given: fields that were emptied on purpose stay empty. */
    public void fill(Row row, Map<Field, InputValue> given) {
        var slots = row.slots();
        for (var field : slots.fields()) {
            var defaultValue = field.defaultValue();
            if (defaultValue != null
                    && slots.get(field) == null
                    && !(given.get(field) instanceof InputValue.Empty)) {
                slots.set(field, value(row.object(), defaultValue));
            }
        }
    }

    /** Gives a new record what the way it comes in says it has. */
    void preset(RecordState record, Map<Field, DefaultValue> presets) {
        presets.forEach((field, defaultValue) ->
                record.slots().set(field, value(record.object(), defaultValue)));
    }

    private Object value(ObjectType object, DefaultValue defaultValue) {
        return switch (defaultValue) {
            case DefaultValue.Fixed(var value, _) -> value;
            case DefaultValue.Today _ -> LocalDate.ofInstant(now, object.zone()).toEpochDay();
            case DefaultValue.Now _ -> TemporalType.micros(now);
        };
    }
}
