package sandpiper.engine.record;

import java.math.BigDecimal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Field;

/**
 * What records come to: how many, and the sums of some of their fields.
 *
 * @param sums one for each field asked for, with its decimal places; zero without a record
 * @param groups the records by one field, when that was asked for
 * @param more whether there are more groups than these
 */
public record Figures(long count, List<BigDecimal> sums, List<Group> groups, boolean more) {
    public Figures {
        sums = List.copyOf(sums);
        groups = List.copyOf(groups);
    }

    /** Records that have one value in common. */
    public record Group(Value value, long count, List<BigDecimal> sums) {
        public Group {
            sums = List.copyOf(sums);
        }
    }

    /**
     * The value of a group.
     *
     * @param plain as protocols write it: a code, a key, the first day of a step; {@code null} for
     *     records without a value
     * @param title what people recognise a linked record by, or {@code null}
     */
    public record Value(@Nullable Object plain, @Nullable String title) {}

    /**
     * What records are grouped by.
     *
     * @param step for dates and moments, how long a group is; {@code null} for other fields
     */
    public record Grouping(Field field, @Nullable Step step) {}

    /** A stretch of the calendar; weeks begin on Monday (ISO 8601). */
    public enum Step {
        DAY,
        WEEK,
        MONTH,
        QUARTER,
        YEAR
    }
}
