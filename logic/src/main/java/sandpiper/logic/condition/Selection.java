package sandpiper.logic.condition;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.value.RecordValue;

/**
 * Which records of an object are wanted. Retired ones are not among them.
 *
 * @param owner the record they must lead to, or {@code null} when they need not
 * @param path the references that lead there from each of them; empty when there is no owner
 * @param condition what else must hold, or {@code null}
 * @param order what they are put in order by; what is equal comes in the order of creation
 * @param most how many are wanted; below 0 for all
 */
public record Selection(
        RecordType records,
        @Nullable RecordValue owner,
        List<String> path,
        @Nullable Condition condition,
        List<Order> order,
        int most) {
    public Selection {
        path = List.copyOf(path);
        order = List.copyOf(order);
    }

    /** All of them, in the order of creation. */
    public Selection(
            RecordType records,
            @Nullable RecordValue owner,
            List<String> path,
            @Nullable Condition condition) {
        this(records, owner, path, condition, List.of(), -1);
    }

    /** The same in an order, and some of them only. */
    public Selection ordered(List<Order> by, int atMost) {
        return new Selection(records, owner, path, condition, by, atMost);
    }

    /**
     * One field to order by; what is empty comes first, last when descending.
     *
     * @param path from each record to the field
     */
    public record Order(List<String> path, boolean descending) {
        public Order {
            path = List.copyOf(path);
        }
    }

    /**
     * One value over many records.
     *
     * @param function {@code count}, {@code sum}, {@code min} or {@code max}
     * @param value what is added up or compared, as a path from each record; empty to count records
     * @param type of what is at the end of the path
     */
    public record Total(String function, List<String> value, LogicType type) {
        public Total {
            value = List.copyOf(value);
        }
    }
}
