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
 * @param others objects whose records an item reads on the way; when one of those changes too, the
 *     total is worked out anew
 */
public record RunningTotal(
        String function,
        ObjectType items,
        List<Field> path,
        List<Condition> conditions,
        @Nullable Code value,
        int valueSlot,
        Set<String> others) {
    public RunningTotal {
        path = List.copyOf(path);
        conditions = List.copyOf(conditions);
        others = Set.copyOf(others);
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
