package sandpiper.model.logic;

import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.run.Code;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;

/**
 * A total over records elsewhere that can be kept right by what each of them adds to it, without
 * looking at the others.
 *
 * @param function {@code count}, {@code sum}, {@code min} or {@code max}
 * @param items the object whose records are added up
 * @param path the references that lead from an item to the record that has the total
 * @param conditions what must hold of an item for it to count; the item is in their place {@link
 *     Condition#slot}
 * @param value what an item adds, or {@code null} to count it
 * @param valueSlot the place of the item for {@link #value}
 * @param others what an item reads of other records on the way; when one of those changes too, the
 *     total is worked out anew
 */
public record RunningTotal(
        String function,
        ObjectType items,
        List<Field> path,
        List<Condition> conditions,
        @Nullable Code value,
        int valueSlot,
        Set<Other> others) {
    public RunningTotal {
        path = List.copyOf(path);
        conditions = List.copyOf(conditions);
        others = Set.copyOf(others);
    }

    /** A field of another object that is read on the way. */
    public record Other(String object, String field) {}

    /**
     * Whether a way is the one straight from the record that has the total to its items, and no
     * other that happens to lead to records of the same object.
     */
    public boolean isOverItemsAt(List<Hop> route) {
        if (route.size() != path.size()) {
            return false;
        }
        for (int i = 0; i < route.size(); i++) {
            var reference = path.get(path.size() - 1 - i);
            if (!(route.get(i) instanceof Hop.Back(_, var field))
                    || !field.name().equals(reference.name())) {
                return false;
            }
        }
        return true;
    }

    /**
     * One condition.
     *
     * @param prefix references that lead from the item to what it is on
     */
    public record Condition(Code code, int slot, List<Field> prefix) {
        public Condition {
            prefix = List.copyOf(prefix);
        }
    }
}
