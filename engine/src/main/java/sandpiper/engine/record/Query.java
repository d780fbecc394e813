package sandpiper.engine.record;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.Operand;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;

/**
 * Which records, in which order, with which fields.
 *
 * @param condition what must be true, or {@code null} for all
 * @param search words to look for in the object's texts, or {@code null}
 * @param sorts the order; the order of creation comes last and makes it complete
 * @param newestFirst whether that last order runs backwards
 * @param after the place to go on from: one value for each sort and the record's number, or {@code
 *     null} for the beginning
 * @param skip records to leave out at the beginning of the page
 * @param limit most records of a page
 * @param counted whether to count all records that match
 * @param retired whether retired records are left out, come too, or come alone
 */
public record Query(
        ObjectType object,
        FieldTree tree,
        @Nullable Condition condition,
        @Nullable String search,
        List<Sort> sorts,
        boolean newestFirst,
        @Nullable List<@Nullable Object> after,
        int skip,
        int limit,
        boolean counted,
        Retired retired) {
    public Query {
        sorts = List.copyOf(sorts);
    }

    /**
     * One field to sort by.
     *
     * @param worked how a field that is not stored is worked out, or {@code null} when it is stored
     */
    public record Sort(FieldPath path, @Nullable Operand worked, boolean descending) {
        /** By a field that is stored. */
        public Sort(FieldPath path, boolean descending) {
            this(path, null, descending);
        }
    }

    /** The same from all records it finds, with other fields of them. */
    public Query with(FieldTree otherTree) {
        return new Query(
                object,
                otherTree,
                condition,
                search,
                sorts,
                newestFirst,
                after,
                skip,
                limit,
                counted,
                retired);
    }

    /** The same where one more condition holds; {@code null} adds none. */
    public Query where(@Nullable Condition more) {
        return new Query(
                object,
                tree,
                Condition.both(condition, more),
                search,
                sorts,
                newestFirst,
                after,
                skip,
                limit,
                counted,
                retired);
    }

    /** The same without the first records. */
    public Query skipping(int records) {
        return new Query(
                object,
                tree,
                condition,
                search,
                sorts,
                newestFirst,
                after,
                records,
                limit,
                counted,
                retired);
    }

    /** What becomes of retired records. */
    public enum Retired {
        WITHOUT,
        WITH,
        ONLY
    }
}
