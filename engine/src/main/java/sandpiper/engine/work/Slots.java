package sandpiper.engine.work;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;

/**
 * The values of a record or line item while it is being changed, with those it had before and when
 * in the work each was last set.
 */
public final class Slots {
    private final Fields fields;
    private final @Nullable Object[] values;
    private final @Nullable Object @Nullable [] before;
    private final int[] stamps;
    private final boolean[] settled;
    private int stamp;

    /** A new one, all empty. */
    public Slots(Fields fields) {
        this.fields = fields;
        this.values = new Object[fields.size()];
        this.before = null;
        this.stamps = new int[fields.size()];
        this.settled = new boolean[fields.size()];
    }

    /** One that is stored already. */
    public Slots(Fields fields, @Nullable Object[] stored) {
        this.fields = fields;
        this.values = stored.clone();
        this.before = stored;
        this.stamps = new int[fields.size()];
        this.settled = new boolean[fields.size()];
    }

    public Fields fields() {
        return fields;
    }

    public @Nullable Object get(Field field) {
        return values[field.index()];
    }

    /** Sets a value; tells whether it is another than before. */
    public boolean set(Field field, @Nullable Object value) {
        if (Objects.equals(values[field.index()], value)) {
            return false;
        }
        values[field.index()] = value;
        stamps[field.index()] = ++stamp;
        return true;
    }

    /** Sets a value that nobody gives now: the record should have had it before. */
    public boolean settle(Field field, @Nullable Object value) {
        settled[field.index()] = set(field, value);
        return settled[field.index()];
    }

    /** Puts a fuller form of a value in its place, which is no change. */
    public void refine(Field field, Object same) {
        values[field.index()] = same;
    }

    /** How many changes there were so far. */
    public int stamp() {
        return stamp;
    }

    /** The number of the change that set a field last; 0 when none did. */
    public int stamp(Field field) {
        return stamps[field.index()];
    }

    /** The value it had when the work began; {@code null} when it was empty or is new. */
    public @Nullable Object before(Field field) {
        return before == null ? null : before[field.index()];
    }

    public @Nullable Object @Nullable [] before() {
        return before;
    }

    public boolean isNew() {
        return before == null;
    }

    public boolean isChanged(Field field) {
        return !Objects.equals(before(field), get(field));
    }

    public List<Field> changed() {
        var changed = new ArrayList<Field>();
        for (var field : fields) {
            if (isChanged(field)) {
                changed.add(field);
            }
        }
        return changed;
    }

    /** Whether anything differs but what formulas work out, or what should have been there. */
    boolean isChangedByHand() {
        for (var field : fields) {
            if (!field.isDerived() && !settled[field.index()] && isChanged(field)) {
                return true;
            }
        }
        return false;
    }

    /** The fields that differ from other values. */
    public List<Field> differing(@Nullable Object[] from) {
        var differing = new ArrayList<Field>();
        for (var field : fields) {
            if (!Objects.equals(from[field.index()], values[field.index()])) {
                differing.add(field);
            }
        }
        return differing;
    }

    public @Nullable Object[] values() {
        return values;
    }

    public @Nullable Object[] copy() {
        return Arrays.copyOf(values, values.length);
    }
}
