package sandpiper.store.record;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jooq.Query;
import org.jooq.SortField;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.RecordStorage.Referrer;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.Selection;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.ColumnValues;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/** Answers what logic asks: which records, how many, what they come to. */
final class RecordSelector {
    /** Shapes of statements kept; logic has as many as there are expressions in a release. */
    private static final int MOST_SHAPES = 2_000;

    private final Release release;
    private final Map<String, Statement> statements = new ConcurrentHashMap<>();

    RecordSelector(Release release) {
        this.release = release;
    }

    boolean holds(SqlSession session, ObjectType object, long number, Condition condition) {
        var predicate = new ConditionToSql(release, object).lower(condition);
        var sql =
                statement(
                        shape("holds", object, predicate),
                        () -> {
                            var joins = new Joins(release, Tables.of(object));
                            var asked =
                                    DSL.condition(
                                            "{0} = {1}",
                                            joins.column(ColumnRef.own(Tables.NUMBER)),
                                            Sql.value());
                            var where = new PredicateSql(joins).of(predicate);
                            return Tables.sql().selectOne().from(joins.from()).where(asked, where);
                        });
        var values = new ArrayList<@Nullable Object>();
        values.add(number);
        predicate.values(values);
        return session.first(sql, _ -> true, values.toArray()).isPresent();
    }

    List<Long> numbers(
            SqlSession session,
            ObjectType object,
            @Nullable Condition condition,
            List<Selection.Order> order,
            int limit) {
        var predicate = predicate(object, condition);
        var shape = shape("numbers" + order, object, predicate);
        var sql =
                statement(
                        shape,
                        () -> {
                            var joins = new Joins(release, Tables.of(object));
                            var number = joins.column(ColumnRef.own(Tables.NUMBER));
                            var where = where(joins, predicate);
                            var sorts = new ArrayList<SortField<?>>();
                            for (var one : order) {
                                var by =
                                        joins.column(
                                                new ConditionToSql(release, object)
                                                        .column(one.path()));
                                sorts.add(one.descending() ? Sql.falling(by) : Sql.rising(by));
                            }
                            sorts.add(number.asc());
                            return Tables.sql()
                                    .select(number)
                                    .from(joins.from())
                                    .where(where)
                                    .orderBy(sorts)
                                    .limit(Sql.count());
                        });
        var values = values(predicate);
        values.add((long) limit);
        return session.list(sql, row -> row.getLong(1), values.toArray());
    }

    @Nullable Object total(
            SqlSession session,
            ObjectType object,
            @Nullable Condition condition,
            String function,
            List<String> path) {
        var predicate = predicate(object, condition);
        var shape = shape(function + path, object, predicate);
        var field = path.isEmpty() ? null : last(object, path);
        var sql =
                statement(
                        shape,
                        () -> {
                            var joins = new Joins(release, Tables.of(object));
                            var counted =
                                    path.isEmpty()
                                            ? DSL.field("*")
                                            : joins.column(
                                                    new ConditionToSql(release, object)
                                                            .column(path));
                            var where = where(joins, predicate);
                            return Tables.sql()
                                    .select(DSL.field(function + "({0})", Object.class, counted))
                                    .from(joins.from())
                                    .where(where);
                        });
        return session.list(
                        sql,
                        row ->
                                new Total(
                                        field == null || function.equals("count")
                                                ? (Object) row.getLong(1)
                                                : ColumnValues.read(field, row, 1)),
                        values(predicate).toArray())
                .getFirst()
                .value();
    }

    /** A value that may be none. */
    private record Total(@Nullable Object value) {}

    Optional<Referrer> referrer(SqlSession session, ObjectType object, long number, boolean inUse) {
        for (var inverse : release.referencesTo(object)) {
            var part = inverse.part();
            var others =
                    Tables.sql()
                            .select(DSL.countDistinct(Sql.column("r", Tables.NUMBER)))
                            .from(Sql.table(Tables.of(inverse.from())).as(DSL.name("r")));
            var joined =
                    part == null
                            ? others
                            : others.join(
                                            Sql.table(Tables.of(inverse.from(), part))
                                                    .as(DSL.name("i")))
                                    .on(
                                            Sql.column("i", Tables.OWNER)
                                                    .eq(Sql.column("r", Tables.NUMBER)));
            var where = new ArrayList<org.jooq.Condition>();
            where.add(Sql.column(part == null ? "r" : "i", inverse.field().name()).eq(number));
            if (inverse.from().name().equals(object.name())) {
                where.add(Sql.column("r", Tables.NUMBER).ne(number));
            }
            if (inUse) {
                where.add(Sql.column("r", Tables.RETIRED).eq(DSL.inline(0)));
            }
            long count = session.list(joined.where(where), row -> row.getLong(1)).getFirst();
            if (count > 0) {
                return Optional.of(new Referrer(inverse.from(), count));
            }
        }
        return Optional.empty();
    }

    private Field last(ObjectType from, List<String> path) {
        return FieldPath.resolve(release, from, path).orElseThrow().last();
    }

    private @Nullable Predicate predicate(ObjectType object, @Nullable Condition condition) {
        return condition == null ? null : new ConditionToSql(release, object).lower(condition);
    }

    private static String shape(String what, ObjectType object, @Nullable Predicate predicate) {
        var shape = new StringBuilder(object.name()).append('#').append(what).append('#');
        if (predicate != null) {
            predicate.shape(shape);
        }
        return shape.toString();
    }

    private Statement statement(String shape, java.util.function.Supplier<Query> made) {
        if (statements.size() > MOST_SHAPES) {
            statements.clear();
        }
        var there = statements.get(shape);
        if (there == null) {
            there = Sql.statement(made.get());
            statements.put(shape, there);
        }
        return there;
    }

    private static List<org.jooq.Condition> where(Joins joins, @Nullable Predicate predicate) {
        var where = new ArrayList<org.jooq.Condition>();
        where.add(DSL.condition("{0} = 0", joins.column(ColumnRef.own(Tables.RETIRED))));
        if (predicate != null) {
            where.add(new PredicateSql(joins).of(predicate));
        }
        return where;
    }

    private static List<@Nullable Object> values(@Nullable Predicate predicate) {
        var values = new ArrayList<@Nullable Object>();
        if (predicate != null) {
            predicate.values(values);
        }
        return values;
    }
}
