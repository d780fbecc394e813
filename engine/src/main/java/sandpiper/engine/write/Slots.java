package sandpiper.engine.write;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;

/** The values of a record or line item while it is being changed, with those it had before. */
final class Slots {
    private final Fields fields;
    private final @Nullable Object[] values;
    private final @Nullable Object @Nullable [] before;

    /** A new one, all empty. */
    Slots(Fields fields) {
        this.fields = fields;
        this.values = new Object[fields.size()];
        this.before = null;
    }

    /** One that is stored already. */
    Slots(Fields fields, @Nullable Object[] stored) {
        this.fields = fields;
        this.values = stored.clone();
        this.before = stored;
    }

    Fields fields() {
        return fields;
    }

    @Nullable Object get(Field field) {
        return values[field.index()];
    }

    void set(Field field, @Nullable Object value) {
        values[field.index()] = value;
    }

    /** The value it had when the work began; {@code null} when it was empty or is new. */
    @Nullable Object before(Field field) {
        return before == null ? null : before[field.index()];
    }

    boolean isNew() {
        return before == null;
    }

    boolean isChanged(Field field) {
        return !Objects.equals(before(field), get(field));
    }

    List<Field> changed() {
        var changed = new ArrayList<Field>();
        for (var field : fields) {
            if (isChanged(field)) {
                changed.add(field);
            }
        }
        return changed;
    }

    @Nullable Object[] values() {
        return values;
    }
}
