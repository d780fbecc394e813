package sandpiper.server.service;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.record.Query;
import sandpiper.logic.Quoted;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.logic.type.RecordType;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.server.problem.ProblemException;

/**
 * Which records are asked for, whatever the protocol: each brings its own notation into this form.
 *
 * @param filter a condition in FEEL, or {@code null} for all records
 * @param written whether the caller wrote the filter so, and is told of columns in it
 * @param sorts the order, most important first; empty for the usual one
 * @param limit how many records at most
 * @param counted whether all that meet the filter are counted
 * @param after the place to go on from, or {@code null} for the beginning
 */
public record QueryRequest(
        @Nullable String filter,
        boolean written,
        List<Sort> sorts,
        int limit,
        boolean counted,
        @Nullable List<@Nullable Object> after) {
    public QueryRequest {
        sorts = List.copyOf(sorts);
    }

    /** A field to sort by, as in {@code vessel.owner.name}. */
    public record Sort(String field, boolean descending) {}

    /** The same from a place on. */
    public QueryRequest from(@Nullable List<@Nullable Object> place) {
        return new QueryRequest(filter, written, sorts, limit, counted, place);
    }

    /**
     * The filter as a condition.
     *
     * @throws ProblemException when it is not right
     */
    public @Nullable Condition condition(Function<String, Checked> check) {
        return Conditions.read("filter", filter, written, check);
    }

    /**
     * The order among what can be sorted by.
     *
     * @param type the record as logic sees it, whole, for fields that are worked out on read
     * @throws ProblemException for a field that is none, or that the database cannot order by
     */
    public List<Query.Sort> order(
            List<String> sortable,
            Function<String, FieldPath> paths,
            RecordType type,
            Clock clock) {
        var order = new ArrayList<Query.Sort>();
        for (var sort : sorts) {
            if (!sortable.contains(sort.field())) {
                throw new ProblemException(
                        HttpStatus.BAD_REQUEST,
                        QueryParameters.notAmong("sort by", sort.field(), sortable));
            }
            order.add(order(paths.apply(sort.field()), sort.descending(), type, clock));
        }
        return order;
    }

    private static Query.Sort order(
            FieldPath path, boolean descending, RecordType type, Clock clock) {
        if (!path.last().onRead()) {
            return new Query.Sort(path, descending);
        }
        var names = path.steps().stream().map(Field::name).toList();
        return ConditionChecker.sortKey(type, names, clock)
                .map(key -> new Query.Sort(path, key, descending))
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.BAD_REQUEST,
                                "You cannot sort by %s: it is worked out each time it is read, in a way the database cannot."
                                        .formatted(Quoted.of(path.written()))));
    }
}
