package sandpiper.engine.record;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.FieldPath;

/**
 * Which groups records are brought to, and what is worked out for each.
 *
 * @param keys what the records of a group have in common; without any, all records are one group,
 *     which is there even when they are none
 * @param orders the most important first; what is equal comes in the order of the keys
 * @param skip groups to leave out at the beginning
 * @param limit most groups
 */
public record Aggregation(
        List<Key> keys, List<Measure> measures, List<Order> orders, int skip, int limit) {
    public Aggregation {
        keys = List.copyOf(keys);
        measures = List.copyOf(measures);
        orders = List.copyOf(orders);
    }

    /** One group of all records. */
    public static Aggregation ofAll(List<Measure> measures) {
        return new Aggregation(List.of(), measures, List.of(), 0, 1);
    }

    /**
     * A stored value that the records of a group have in common.
     *
     * @param coarse whether moments are brought to the quarter of an hour they are in
     */
    public record Key(FieldPath path, boolean coarse) {}

    /**
     * Something worked out for a group.
     *
     * @param of a stored field of one column; {@code null} for {@link Function#COUNT} alone
     */
    public record Measure(Function function, @Nullable FieldPath of) {
        /** How many records. */
        public static final Measure COUNT = new Measure(Function.COUNT, null);
    }

    /** How a measure is worked out; empty values play no part. */
    public enum Function {
        /** The number of records; a {@link Long}. */
        COUNT,
        /** Of numbers; a {@link java.math.BigDecimal} of any size, {@code null} of nothing. */
        SUM,
        /** Of numbers; a {@link java.math.BigDecimal}, {@code null} of nothing. */
        AVERAGE,
        /** The smallest, in stored form. */
        MIN,
        /** The largest, in stored form. */
        MAX,
        /** How many different values there are; a {@link Long}. */
        DISTINCT
    }

    /**
     * A column groups are put in order by; nothing comes before any value.
     *
     * @param column counted over the keys and then the measures, from 0
     */
    public record Order(int column, boolean descending) {}

    /**
     * A group.
     *
     * @param keys one for each key, in stored form; a {@link RecordView.Link} for a reference
     * @param measures one for each measure
     */
    public record Row(List<@Nullable Object> keys, List<@Nullable Object> measures) {
        public Row {
            keys = Collections.unmodifiableList(new ArrayList<>(keys));
            measures = Collections.unmodifiableList(new ArrayList<>(measures));
        }
    }
}
