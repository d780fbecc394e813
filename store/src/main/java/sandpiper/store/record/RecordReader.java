package sandpiper.store.record;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.Record1;
import org.jooq.Select;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.record.Page;
import sandpiper.engine.record.Query;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.record.RecordView.ItemView;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.Either;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.ColumnValues;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/** Reads chosen fields of records. The SQL of each shape of query is written once. */
final class RecordReader {
    /** Shapes kept; callers may sort and filter as they like, so there must be an end. */
    private static final int MOST_SHAPES = 2_000;

    /** How many columns every record begins with before those that say who made and changed it. */
    private static final int UNSTAMPED = 4;

    private final Release release;
    private final Map<String, Plan> plans = new ConcurrentHashMap<>();
    private final Map<String, OnePlan> ofOne = new ConcurrentHashMap<>();
    private final SmallTables small = new SmallTables();

    /** The SQL of one shape of query, and how to read its rows. */
    private record Plan(
            Statement page,
            Statement count,
            PathColumns columns,
            int firstSortColumn,
            boolean annotated,
            List<PartPlan> parts) {}

    /**
     * The SQL of one record.
     *
     * @param whole the record and its line items at once, the values bound for each part anew
     */
    private record OnePlan(Plan plan, Statement whole) {}

    /** The SQL for the line items of one record, and for those of the records of a page. */
    private record PartPlan(Statement ofOne, Statement ofMany, PathColumns columns) {}

    RecordReader(Release release) {
        this.release = release;
    }

    Page page(SqlSession session, Query query) {
        var writer = new QuerySql(release, query, object -> small.isSmall(session, object));
        var plan = plan(writer, query);
        int limit = query.limit();
        var places = new ArrayList<List<@Nullable Object>>();
        boolean sorted = !query.sorts().isEmpty();
        var heads =
                session.list(
                        plan.page(),
                        row -> {
                            if (sorted) {
                                places.add(sortValues(row, plan, query));
                            }
                            return head(row, plan);
                        },
                        writer.pageValues());
        boolean more = heads.size() > limit;
        var shown = more ? heads.subList(0, limit) : heads;
        var total = query.counted() ? session.number(plan.count(), writer.countValues()) : null;
        return new Page(
                withItems(session, plan.parts(), shown),
                more && limit > 0
                        ? place(sorted ? places.get(limit - 1) : List.of(), shown.getLast())
                        : null,
                total);
    }

    private Plan plan(QuerySql writer, Query query) {
        var shape = writer.shape();
        var there = plans.get(shape);
        if (there != null) {
            return there;
        }
        if (plans.size() > MOST_SHAPES) {
            plans.clear();
        }
        var joins = new Joins(release, Tables.of(query.object()));
        var where = writer.filter(joins);
        var head = headColumns(joins, query.tree());
        var columns = columns(joins, head.size() + 1, query.tree());
        head.addAll(columns.columns());
        var plan =
                new Plan(
                        writer.page(joins, where, head),
                        writer.count(new Joins(release, Tables.of(query.object()))),
                        columns,
                        head.size() + 1,
                        query.tree().annotated(),
                        partPlans(query.object(), query.tree(), owner -> owner.eq(Sql.value())));
        plans.put(shape, plan);
        return plan;
    }

    Optional<RecordView> view(SqlSession session, ObjectType object, long number, FieldTree tree) {
        return viewed(session, one(object, List.of(Tables.NUMBER), tree), number);
    }

    /** {@code key} has the value of the first column of each field of the key. */
    Optional<RecordView> viewByKey(
            SqlSession session, ObjectType object, List<@Nullable Object> key, FieldTree tree) {
        var columns =
                object.keyFields().stream().map(field -> Tables.columns(field).getFirst()).toList();
        return viewed(session, one(object, columns, tree), key.toArray());
    }

    /** How the record is read whose columns have values that are bound. */
    private OnePlan one(ObjectType object, List<String> by, FieldTree tree) {
        if (ofOne.size() > MOST_SHAPES) {
            ofOne.clear();
        }
        return ofOne.computeIfAbsent(
                object.name() + '#' + by + '#' + tree.shape(), _ -> onePlan(object, by, tree));
    }

    private static Optional<RecordView> viewed(
            SqlSession session, OnePlan one, @Nullable Object... values) {
        var plan = one.plan();
        return session.dialect().hasOneWriter()
                ? session.first(plan.page(), row -> head(row, plan), values)
                        .map(head -> withItems(session, plan.parts(), List.of(head)).getFirst())
                : viewedAtOnce(session, one, values);
    }

    /** In one question, where each is a way to the database and back. */
    private static Optional<RecordView> viewedAtOnce(
            SqlSession session, OnePlan one, @Nullable Object... values) {
        var bound = new ArrayList<>(Arrays.asList(values));
        var heads = new ArrayList<RecordView>();
        var parts = new ArrayList<List<ItemView>>();
        var consumers = new ArrayList<SqlSession.RowConsumer>();
        consumers.add(row -> heads.add(head(row, one.plan())));
        for (var part : one.plan().parts()) {
            var items = new ArrayList<ItemView>();
            parts.add(items);
            consumers.add(row -> items.add(item(row, part)));
            bound.addAll(Arrays.asList(values));
        }
        session.together(one.whole(), consumers, bound.toArray());
        return heads.stream().findFirst().map(head -> withParts(head, parts));
    }

    private OnePlan onePlan(ObjectType object, List<String> by, FieldTree tree) {
        var joins = new Joins(release, Tables.of(object));
        var head = headColumns(joins, tree);
        var columns = columns(joins, head.size() + 1, tree);
        head.addAll(columns.columns());
        var found =
                by.stream()
                        .map(column -> joins.column(ColumnRef.own(column)).eq(Sql.value()))
                        .toList();
        var statement = Sql.statement(Tables.sql().select(head).from(joins.from()).where(found));
        var parts =
                partPlans(
                        object,
                        tree,
                        owner ->
                                by.equals(List.of(Tables.NUMBER))
                                        ? owner.eq(Sql.value())
                                        : owner.eq(numberOf(object, by)));
        var all = new ArrayList<>(List.of(statement));
        parts.forEach(part -> all.add(part.ofOne()));
        return new OnePlan(
                new Plan(statement, statement, columns, head.size() + 1, tree.annotated(), parts),
                Statement.together(all));
    }

    private static Select<Record1<Object>> numberOf(ObjectType object, List<String> by) {
        return Tables.sql()
                .select(Sql.column(Tables.NUMBER))
                .from(Sql.table(Tables.of(object)))
                .where(by.stream().map(Sql::is).toList());
    }

    private PathColumns columns(Joins joins, int first, FieldTree tree) {
        return new PathColumns(release, joins, first, tree.paths(), tree.annotated());
    }

    private static List<org.jooq.Field<?>> headColumns(Joins joins, FieldTree tree) {
        var columns = new ArrayList<org.jooq.Field<?>>();
        Tables.RECORD_COLUMNS.stream()
                .limit(tree.annotated() ? Tables.RECORD_COLUMNS.size() : UNSTAMPED)
                .forEach(name -> columns.add(joins.column(ColumnRef.own(name))));
        return columns;
    }

    private List<PartPlan> partPlans(
            ObjectType object, FieldTree tree, Function<Field<Object>, Condition> isOwner) {
        var parts = new ArrayList<PartPlan>();
        for (var part : tree.parts()) {
            var joins = new Joins(release, Tables.of(object, part.part()));
            var owner = joins.column(ColumnRef.own(Tables.OWNER));
            var selected =
                    new ArrayList<org.jooq.Field<?>>(
                            List.of(owner, joins.column(ColumnRef.own(Tables.LINE))));
            var columns =
                    new PathColumns(
                            release, joins, selected.size() + 1, part.paths(), tree.annotated());
            selected.addAll(columns.columns());
            parts.add(
                    new PartPlan(
                            items(joins, selected, isOwner.apply(owner)),
                            items(joins, selected, among(owner)),
                            columns));
        }
        return parts;
    }

    private static Statement items(Joins joins, List<org.jooq.Field<?>> selected, Condition where) {
        return Sql.statement(
                Tables.sql()
                        .select(selected)
                        .from(joins.from())
                        .where(where)
                        .orderBy(
                                joins.column(ColumnRef.own(Tables.OWNER)),
                                joins.column(ColumnRef.own(Tables.POSITION))));
    }

    /** That a number is one of those that are bound as one text. */
    private static Condition among(Field<?> number) {
        return Either.condition(
                "{0} in (select value from json_each('[' || {1} || ']'))",
                "{0} = any(cast(string_to_array({1}, ',') as bigint[]))", number, Sql.value());
    }

    private static RecordView head(ResultSet row, Plan plan) throws SQLException {
        return new RecordView(
                row.getLong(1),
                ColumnValues.uuid(row.getBytes(2)),
                row.getLong(3),
                row.getLong(4) != 0,
                plan.annotated() ? stamps(row) : null,
                plan.columns().read(row),
                List.of());
    }

    private static RecordView.Stamps stamps(ResultSet row) throws SQLException {
        return new RecordView.Stamps(
                TemporalType.instant(row.getLong(UNSTAMPED + 1)),
                row.getString(UNSTAMPED + 2),
                TemporalType.instant(row.getLong(UNSTAMPED + 3)),
                row.getString(UNSTAMPED + 4));
    }

    private static List<@Nullable Object> sortValues(ResultSet row, Plan plan, Query query)
            throws SQLException {
        var values = new ArrayList<@Nullable Object>();
        for (int i = 0; i < query.sorts().size(); i++) {
            var value = row.getObject(plan.firstSortColumn() + i);
            values.add(value instanceof Number number ? (Object) number.longValue() : value);
        }
        return values;
    }

    /** The place behind a record, to go on from. */
    private static List<@Nullable Object> place(List<@Nullable Object> sorts, RecordView last) {
        var place = new ArrayList<>(sorts);
        place.add(last.number());
        return place;
    }

    private static List<RecordView> withItems(
            SqlSession session, List<PartPlan> parts, List<RecordView> heads) {
        if (parts.isEmpty() || heads.isEmpty()) {
            return heads;
        }
        // A database plans for one without guessing how many there are; in a file the list is
        // faster (2,500 reads a second in the place of 1,900).
        boolean isOne = heads.size() == 1 && !session.dialect().hasOneWriter();
        Object owners =
                isOne
                        ? heads.getFirst().number()
                        : String.join(
                                ",",
                                heads.stream().map(head -> Long.toString(head.number())).toList());
        var ofParts = new ArrayList<Map<Long, List<ItemView>>>();
        for (var part : parts) {
            var byOwner = new HashMap<Long, List<ItemView>>();
            session.list(
                    isOne ? part.ofOne() : part.ofMany(),
                    row ->
                            byOwner.computeIfAbsent(row.getLong(1), _ -> new ArrayList<>())
                                    .add(item(row, part)),
                    owners);
            ofParts.add(byOwner);
        }
        return heads.stream()
                .map(head ->
                        withParts(
                                head,
                                ofParts.stream()
                                        .map(byOwner ->
                                                byOwner.getOrDefault(head.number(), List.of()))
                                        .toList()))
                .toList();
    }

    private static ItemView item(ResultSet row, PartPlan part) throws SQLException {
        return new ItemView(row.getLong(2), part.columns().read(row));
    }

    private static RecordView withParts(RecordView head, List<List<ItemView>> parts) {
        return new RecordView(
                head.number(),
                head.id(),
                head.version(),
                head.retired(),
                head.stamps(),
                head.values(),
                parts);
    }
}
