package sandpiper.store.record;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jooq.Condition;
import org.jooq.OrderField;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.record.Query;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.store.table.Tables;

/**
 * Writes a query as SQL. Paging goes on behind the last row's values instead of counting rows from
 * the beginning, so that a far page costs no more than the first, and rows that come or go
 * meanwhile shift nothing.
 */
final class QuerySql {
    private final Release release;
    private final Query query;
    private final @Nullable Predicate predicate;
    private final List<Scalar> sorts;
    private final List<ColumnRef> searchable;
    private final List<String> words;

    QuerySql(Release release, Query query, java.util.function.Predicate<ObjectType> isSmall) {
        this.release = release;
        this.query = query;
        var lowering = new ConditionToSql(release, query.object(), isSmall);
        var condition = query.condition();
        this.predicate = condition == null ? null : lowering.lower(condition);
        this.sorts = query.sorts().stream().map(sort -> scalarOf(sort, lowering)).toList();
        var search = query.search();
        this.words =
                search == null || search.isBlank()
                        ? List.of()
                        : List.of(search.strip().toLowerCase(Locale.ROOT).split("\\s+", 8));
        this.searchable = words.isEmpty() ? List.of() : lowering.searchable();
    }

    /** What tells this query's SQL from that of others; values play no part. */
    String shape() {
        var shape =
                new StringBuilder(query.object().name())
                        .append('#')
                        .append(query.tree().shape())
                        .append('#')
                        .append(words.size())
                        .append(query.newestFirst() ? 'n' : 'o')
                        .append(query.retired());
        for (int i = 0; i < sorts.size(); i++) {
            sorts.get(i).shape(shape);
            shape.append(query.sorts().get(i).descending() ? '-' : '+');
        }
        var after = query.after();
        if (after != null) {
            after.forEach(value -> shape.append(value == null ? '0' : '1'));
        }
        if (predicate != null) {
            predicate.shape(shape);
        }
        return shape.toString();
    }

    /** The values in the order of the question marks of {@link #page}. */
    Object[] pageValues() {
        var values = new ArrayList<@Nullable Object>();
        sorts.forEach(sort -> sort.values(values));
        values.addAll(filterValues());
        var after = query.after();
        if (after != null) {
            addKeysetValues(after, values);
        }
        // One more than asked for tells whether there is a next page.
        values.add((long) query.limit() + 1);
        values.add((long) query.skip());
        return values.toArray();
    }

    /** The values in the order of the question marks of {@link #count}. */
    Object[] countValues() {
        return filterValues().toArray();
    }

    private List<@Nullable Object> filterValues() {
        var values = new ArrayList<@Nullable Object>();
        if (predicate != null) {
            predicate.values(values);
        }
        for (var word : words) {
            var pattern = "%" + word.replace("!", "!!").replace("%", "!%").replace("_", "!_") + "%";
            searchable.forEach(_ -> values.add(pattern));
        }
        return values;
    }

    /**
     * The page.
     *
     * @param where what {@link #filter} gave on the same joins
     */
    String page(Joins joins, List<Condition> where, List<org.jooq.Field<?>> columns) {
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
            order.add(query.sorts().get(i).descending() ? key.desc() : key.asc());
        }
        var number = joins.column(ColumnRef.own(Tables.NUMBER));
        order.add(query.newestFirst() ? number.desc() : number.asc());
        var conditions = new ArrayList<>(where);
        var after = query.after();
        if (after != null) {
            conditions.add(keyset(joins, after, 0));
        }
        return Tables.sql()
                .select(selected)
                .from(joins.from())
                .where(conditions)
                .orderBy(order)
                .limit(DSL.param("limit", Long.class))
                .offset(DSL.param("skip", Long.class))
                .getSQL();
    }

    String count(Joins joins) {
        var where = filter(joins);
        return Tables.sql().select(DSL.count()).from(joins.from()).where(where).getSQL();
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
        if (predicate != null) {
            where.add(new PredicateSql(joins).of(predicate));
        }
        for (int i = 0; i < words.size(); i++) {
            where.add(
                    DSL.or(
                            searchable.stream()
                                    .map(column ->
                                            DSL.condition(
                                                    "{0} like {1} escape '!'",
                                                    joins.column(column), ScalarSql.placeholder()))
                                    .toList()));
        }
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
     * Rows behind a place: later in the first sort, or the same there and later in the rest. Empty
     * values come first.
     */
    private Condition keyset(Joins joins, List<@Nullable Object> after, int sort) {
        if (sort == query.sorts().size()) {
            var number = joins.column(ColumnRef.own(Tables.NUMBER));
            return DSL.condition(
                    "{0} " + (query.newestFirst() ? "<" : ">") + " {1}",
                    number,
                    ScalarSql.placeholder());
        }
        var column = new ScalarSql(joins).of(sorts.get(sort));
        boolean descending = query.sorts().get(sort).descending();
        boolean empty = after.get(sort) == null;
        var rest = keyset(joins, after, sort + 1);
        if (empty) {
            var same = column.isNull().and(rest);
            return descending ? same : column.isNotNull().or(same);
        }
        var same = DSL.condition("{0} = {1}", column, ScalarSql.placeholder()).and(rest);
        var later =
                descending
                        ? DSL.condition("{0} < {1}", column, ScalarSql.placeholder())
                                .or(column.isNull())
                        : DSL.condition("{0} > {1}", column, ScalarSql.placeholder());
        return later.or(same);
    }

    /** In the order of {@link #keyset}, in which a sort stands two or three times. */
    private void addKeysetValues(List<@Nullable Object> after, List<@Nullable Object> values) {
        for (int i = 0; i < sorts.size(); i++) {
            var scalar = sorts.get(i);
            boolean descending = query.sorts().get(i).descending();
            scalar.values(values);
            if (after.get(i) == null) {
                if (!descending) {
                    scalar.values(values);
                }
                continue;
            }
            values.add(after.get(i));
            if (descending) {
                scalar.values(values);
            }
            scalar.values(values);
            values.add(after.get(i));
        }
        values.add(after.getLast());
    }
}
