package sandpiper.store.record;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jooq.Condition;
import org.jooq.OrderField;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.record.Query;
import sandpiper.logic.syntax.Operator;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/**
 * Writes a query as SQL. Paging goes on behind the last row's values instead of counting rows from
 * the beginning, so that a far page costs no more than the first, and rows that come or go
 * meanwhile shift nothing.
 */
final class QuerySql {
    /** Words that are searched for; what is behind them belongs to the last. */
    private static final int MOST_WORDS = 8;

    private final Release release;
    private final Query query;
    private final List<Scalar> sorts;

    /** Which rows, but for those that are retired. */
    private final Predicate filter;

    /** Those behind the place where the last page ended. */
    private final Predicate behind;

    QuerySql(Release release, Query query, java.util.function.Predicate<ObjectType> isSmall) {
        this.release = release;
        this.query = query;
        var lowering = new ConditionToSql(release, query.object(), isSmall);
        this.sorts = query.sorts().stream().map(sort -> scalarOf(sort, lowering)).toList();
        var wanted = new ArrayList<Predicate>();
        if (query.condition() != null) {
            wanted.add(lowering.lower(query.condition()));
        }
        search(query.search(), lowering, wanted);
        this.filter = new Predicate.All(wanted);
        var after = query.after();
        this.behind = after == null ? new Predicate.Always(true) : behind(after, 0);
    }

    /** Each word must stand in some text of a record. */
    private static void search(
            @Nullable String search, ConditionToSql lowering, List<Predicate> wanted) {
        if (search == null || search.isBlank()) {
            return;
        }
        var searchable = lowering.searchable();
        for (var word : search.strip().toLowerCase(Locale.ROOT).split("\\s+", MOST_WORDS)) {
            var pattern = "%" + word.replace("!", "!!").replace("%", "!%").replace("_", "!_") + "%";
            wanted.add(
                    new Predicate.Any(
                            searchable.stream()
                                    .<Predicate>map(column ->
                                            new Predicate.Like(new Scalar.Column(column), pattern))
                                    .toList()));
        }
    }

    /** What tells this query's SQL from that of others; values play no part. */
    String shape() {
        var shape =
                new StringBuilder(query.object().name())
                        .append('#')
                        .append(query.tree().shape())
                        .append('#')
                        .append(query.newestFirst() ? 'n' : 'o')
                        .append(query.retired());
        for (int i = 0; i < sorts.size(); i++) {
            sorts.get(i).shape(shape);
            shape.append(query.sorts().get(i).descending() ? '-' : '+');
        }
        filter.shape(shape);
        behind.shape(shape);
        return shape.toString();
    }

    /** The values in the order of the question marks of {@link #page}. */
    Object[] pageValues() {
        var values = new ArrayList<@Nullable Object>();
        sorts.forEach(sort -> sort.values(values));
        filter.values(values);
        behind.values(values);
        // One more than asked for tells whether there is a next page.
        values.add((long) query.limit() + 1);
        values.add((long) query.skip());
        return values.toArray();
    }

    /** The values in the order of the question marks of {@link #count}. */
    Object[] countValues() {
        var values = new ArrayList<@Nullable Object>();
        filter.values(values);
        return values.toArray();
    }

    /**
     * The page.
     *
     * @param where what {@link #filter} gave on the same joins
     */
    Statement page(Joins joins, List<Condition> where, List<org.jooq.Field<?>> columns) {
        var selected = new ArrayList<>(columns);
        var order = new ArrayList<OrderField<?>>();
        var sql = new ScalarSql(joins);
        for (int i = 0; i < sorts.size(); i++) {
            var scalar = sorts.get(i);
            var written = sql.of(scalar);
            // What is worked out is named, so that its SQL and its values stand here only.
            boolean stored = scalar instanceof Scalar.Column;
            var name = DSL.field(DSL.name("sort" + i), Object.class);
            selected.add(stored ? written : written.as(name));
            var key = stored ? written : name;
            order.add(query.sorts().get(i).descending() ? Sql.falling(key) : Sql.rising(key));
        }
        var number = joins.column(ColumnRef.own(Tables.NUMBER));
        order.add(query.newestFirst() ? number.desc() : number.asc());
        var conditions = new ArrayList<>(where);
        if (query.after() != null) {
            conditions.add(new PredicateSql(joins).of(behind));
        }
        return Sql.statement(
                        Tables.sql()
                                .select(selected)
                                .from(joins.from())
                                .where(conditions)
                                .orderBy(order))
                .inPages();
    }

    Statement count(Joins joins) {
        var where = filter(joins);
        return Sql.statement(Tables.sql().select(DSL.count()).from(joins.from()).where(where));
    }

    /**
     * Which rows. To be called before anything else is joined: rows are then told apart before what
     * is only shown of them is looked up.
     */
    List<Condition> filter(Joins joins) {
        var where = new ArrayList<Condition>();
        if (query.retired() != Query.Retired.WITH) {
            where.add(
                    DSL.condition(
                            "{0} = " + (query.retired() == Query.Retired.ONLY ? "1" : "0"),
                            joins.column(ColumnRef.own(Tables.RETIRED))));
        }
        where.add(new PredicateSql(joins).of(filter));
        return where;
    }

    private Scalar scalarOf(Query.Sort sort, ConditionToSql lowering) {
        var worked = sort.worked();
        return worked == null ? new Scalar.Column(columnOf(sort)) : lowering.scalar(worked);
    }

    private ColumnRef columnOf(Query.Sort sort) {
        var steps = sort.path().steps();
        var last = sort.path().last();
        if (last.type() instanceof FieldType.Reference reference) {
            var key = release.target(reference).key();
            return new ColumnRef(steps, key.isEmpty() ? Tables.NUMBER : key.getFirst());
        }
        return new ColumnRef(steps.subList(0, steps.size() - 1), last.name());
    }

    /**
     * Rows behind a place: later in this sort, or the same there and later in the rest. Empty
     * values come first.
     */
    private Predicate behind(List<@Nullable Object> after, int sort) {
        if (sort == sorts.size()) {
            return new Predicate.Compare(
                    new Scalar.Column(ColumnRef.own(Tables.NUMBER)),
                    query.newestFirst() ? Operator.LESS : Operator.GREATER,
                    new Scalar.Bound(after.getLast()));
        }
        var scalar = sorts.get(sort);
        boolean descending = query.sorts().get(sort).descending();
        var rest = behind(after, sort + 1);
        var isEmpty = new Predicate.Empty(scalar);
        var value = after.get(sort);
        if (value == null) {
            var same = new Predicate.All(List.of(isEmpty, rest));
            return descending ? same : any(new Predicate.Not(isEmpty), same);
        }
        var place = new Scalar.Bound(value);
        var same =
                new Predicate.All(
                        List.of(new Predicate.Compare(scalar, Operator.EQUAL, place), rest));
        return descending
                ? any(new Predicate.Compare(scalar, Operator.LESS, place), isEmpty, same)
                : any(new Predicate.Compare(scalar, Operator.GREATER, place), same);
    }

    private static Predicate any(Predicate... parts) {
        return new Predicate.Any(List.of(parts));
    }
}
