package sandpiper.store.record;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.record.Aggregation;
import sandpiper.engine.record.Page;
import sandpiper.engine.record.Query;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.record.StoredRecord;
import sandpiper.engine.record.StoredRecord.StoredItem;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.Selection;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.system.SqlFiles;
import sandpiper.store.table.ColumnValues;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/** The records of one release. Safe to share between threads; sessions are not. */
public final class SqlRecords implements RecordStorage {
    private final Release release;
    private final Series series;
    private final RecordReader reader;
    private final RecordSelector selector;
    private final Map<String, ObjectSql> statements = new HashMap<>();
    private final WriterRecordCache atHand = new WriterRecordCache();

    /** Access to the records of a release, whose numbers are made of what {@code series} gives. */
    public SqlRecords(Release release, Series series) {
        this.release = release;
        this.series = series;
        this.reader = new RecordReader(release);
        this.selector = new RecordSelector(release);
        release.objects().forEach(object -> statements.put(object.name(), new ObjectSql(object)));
    }

    private ObjectSql of(ObjectType object) {
        return Objects.requireNonNull(statements.get(object.name()));
    }

    @Override
    public Optional<Found> byKey(Session session, ObjectType object, List<Object> key) {
        var known = atHand.byKey(SqlSession.of(session), object, key);
        return known != null
                ? Optional.of(known)
                : another(session, object, object.keyFields(), key, -1);
    }

    @Override
    public Optional<Found> byId(Session session, ObjectType object, UUID id) {
        return SqlSession.of(session)
                .first(of(object).byId, SqlRecords::found, ColumnValues.bytes(id));
    }

    @Override
    public Optional<Found> another(
            Session session,
            ObjectType object,
            List<Field> fields,
            List<Object> values,
            long except) {
        var bound = new ArrayList<@Nullable Object>();
        for (int i = 0; i < fields.size(); i++) {
            // Of a value with several columns the first tells: a localised text is unique in its
            // main language.
            bound.add(ColumnValues.split(fields.get(i), values.get(i)).getFirst());
        }
        bound.add(except);
        return SqlSession.of(session)
                .first(of(object).byFields(fields), SqlRecords::found, bound.toArray());
    }

    private static Found found(ResultSet row) throws SQLException {
        return new Found(row.getLong(1), row.getLong(2) != 0);
    }

    @Override
    public Optional<List<@Nullable Object>> keyOf(Session session, ObjectType object, long number) {
        var key = object.keyFields();
        var known = atHand.record(SqlSession.of(session), object, number);
        if (known != null && !key.isEmpty()) {
            return Optional.of(
                    key.stream()
                            .<@Nullable Object>map(field -> known.values()[field.index()])
                            .toList());
        }
        return SqlSession.of(session)
                .first(
                        of(object).keyOf,
                        row -> {
                            var values = new ArrayList<@Nullable Object>();
                            for (int i = 0; i < key.size(); i++) {
                                values.add(ColumnValues.read(key.get(i), row, i + 1));
                            }
                            return values;
                        },
                        number);
    }

    @Override
    public Optional<StoredRecord> load(Session session, ObjectType object, long number) {
        var sql = SqlSession.of(session);
        var known = atHand.record(sql, object, number);
        if (known != null) {
            return Optional.of(known);
        }
        var read = read(sql, object, number);
        read.ifPresent(record -> atHand.keep(sql, object, record));
        return read;
    }

    private Optional<StoredRecord> read(SqlSession sql, ObjectType object, long number) {
        var statementsOfObject = of(object);
        var items = new ArrayList<List<StoredItem>>();
        for (var part : object.parts()) {
            items.add(
                    sql.list(
                            statementsOfObject.parts.get(part.index()).load,
                            row ->
                                    new StoredItem(
                                            row.getLong(2),
                                            values(
                                                    part.fields(),
                                                    row,
                                                    Tables.ITEM_COLUMNS.size() + 1)),
                            number));
        }
        return sql.first(
                statementsOfObject.load,
                row ->
                        new StoredRecord(
                                row.getLong(1),
                                ColumnValues.uuid(row.getBytes(2)),
                                row.getLong(3),
                                row.getLong(4) != 0,
                                TemporalType.instant(row.getLong(5)),
                                row.getString(6),
                                TemporalType.instant(row.getLong(7)),
                                row.getString(8),
                                values(object.fields(), row, Tables.RECORD_COLUMNS.size() + 1),
                                items),
                number);
    }

    private static @Nullable Object[] values(Fields fields, ResultSet row, int first)
            throws SQLException {
        var values = new @Nullable Object[fields.size()];
        int column = first;
        for (var field : fields) {
            values[field.index()] = ColumnValues.read(field, row, column);
            column += ColumnValues.width(field);
        }
        return values;
    }

    @Override
    public Optional<RecordView> view(
            Session session, ObjectType object, long number, FieldTree tree) {
        return reader.view(SqlSession.of(session), object, number, tree);
    }

    @Override
    public Page page(Session session, Query query) {
        return reader.page(SqlSession.of(session), query);
    }

    @Override
    public List<Aggregation.Row> aggregate(Session session, Query query, Aggregation wanted) {
        return new AggregateReader(release, query, wanted).rows(SqlSession.of(session));
    }

    @Override
    public boolean holds(Session session, ObjectType object, long number, Condition condition) {
        return selector.holds(SqlSession.of(session), object, number, condition);
    }

    @Override
    public List<Long> numbers(
            Session session,
            ObjectType object,
            @Nullable Condition condition,
            List<Selection.Order> order,
            int limit) {
        return selector.numbers(SqlSession.of(session), object, condition, order, limit);
    }

    @Override
    public List<Long> numbersAfter(Session session, ObjectType object, long number, int limit) {
        return SqlSession.of(session)
                .list(of(object).after, row -> row.getLong(1), number, (long) limit);
    }

    @Override
    public long highest(Session session, ObjectType object) {
        return SqlSession.of(session).number(of(object).highest);
    }

    @Override
    public @Nullable Object total(
            Session session,
            ObjectType object,
            @Nullable Condition condition,
            String function,
            List<String> path) {
        return selector.total(SqlSession.of(session), object, condition, function, path);
    }

    @Override
    public List<Long> referring(
            Session session, ObjectType object, @Nullable Part part, Field field, long number) {
        return SqlSession.of(session)
                .list(of(object).referring(part, field), row -> row.getLong(1), number);
    }

    @Override
    public Optional<Referrer> referrer(
            Session session, ObjectType object, long number, boolean inUse) {
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
            long count =
                    SqlSession.of(session)
                            .list(joined.where(where), row -> row.getLong(1))
                            .getFirst();
            if (count > 0) {
                return Optional.of(new Referrer(inverse.from(), count));
            }
        }
        return Optional.empty();
    }

    @Override
    public long insert(Transaction transaction, ObjectType object, StoredRecord record) {
        var sql = SqlSession.of(transaction);
        var values = new ArrayList<@Nullable Object>();
        values.add(ColumnValues.bytes(record.id()));
        values.add(record.version());
        values.add(record.retired());
        values.add(TemporalType.micros(record.createdAt()));
        values.add(record.createdBy());
        values.add(TemporalType.micros(record.changedAt()));
        values.add(record.changedBy());
        object.fields()
                .forEach(
                        field -> ColumnValues.split(field, record.values()[field.index()], values));
        of(object).files.forEach(field -> SqlFiles.keep(sql, record.values()[field.index()]));
        long number = sql.insert(of(object).insert, values.toArray());
        // Should it be undone, another may come to have its number.
        atHand.forget(sql, object, number);
        for (var part : object.parts()) {
            var items = record.items().get(part.index());
            for (int i = 0; i < items.size(); i++) {
                insertItem(transaction, object, part, number, items.get(i), i);
            }
        }
        return number;
    }

    @Override
    public void update(
            Transaction transaction, ObjectType object, StoredRecord record, List<Field> changed) {
        var sql = SqlSession.of(transaction);
        atHand.forget(sql, object, record.number());
        keepFiles(sql, of(object).files, changed, record.values());
        var values = new ArrayList<@Nullable Object>();
        values.add(record.version());
        values.add(record.retired());
        values.add(TemporalType.micros(record.changedAt()));
        values.add(record.changedBy());
        changed.forEach(field -> ColumnValues.split(field, record.values()[field.index()], values));
        values.add(record.number());
        sql.run(of(object).update(changed), values.toArray());
    }

    private static void keepFiles(
            SqlSession sql, List<Field> files, List<Field> changed, @Nullable Object[] values) {
        for (var field : files) {
            if (changed.contains(field)) {
                SqlFiles.keep(sql, values[field.index()]);
            }
        }
    }

    @Override
    public void insertItem(
            Transaction transaction,
            ObjectType object,
            Part part,
            long owner,
            StoredItem item,
            int position) {
        var sql = SqlSession.of(transaction);
        var statementsOfPart = of(object).parts.get(part.index());
        atHand.forget(sql, object, owner);
        statementsOfPart.files.forEach(field -> SqlFiles.keep(sql, item.values()[field.index()]));
        var values = new ArrayList<@Nullable Object>();
        values.add(owner);
        values.add(item.line());
        values.add(position);
        part.fields()
                .forEach(field -> ColumnValues.split(field, item.values()[field.index()], values));
        sql.run(statementsOfPart.insert, values.toArray());
    }

    @Override
    public void updateItem(
            Transaction transaction,
            ObjectType object,
            Part part,
            long owner,
            StoredItem item,
            int position,
            List<Field> changed) {
        var sql = SqlSession.of(transaction);
        var statementsOfPart = of(object).parts.get(part.index());
        atHand.forget(sql, object, owner);
        keepFiles(sql, statementsOfPart.files, changed, item.values());
        var values = new ArrayList<@Nullable Object>();
        values.add(position);
        changed.forEach(field -> ColumnValues.split(field, item.values()[field.index()], values));
        values.add(owner);
        values.add(item.line());
        sql.run(statementsOfPart.update(changed), values.toArray());
    }

    @Override
    public void deleteItem(
            Transaction transaction, ObjectType object, Part part, long owner, long line) {
        atHand.forget(SqlSession.of(transaction), object, owner);
        SqlSession.of(transaction).run(of(object).parts.get(part.index()).delete, owner, line);
    }

    @Override
    public long lastLine(Session session, ObjectType object, Part part, long owner) {
        return SqlSession.of(session).number(of(object).parts.get(part.index()).lastLine, owner);
    }

    @Override
    public void delete(Transaction transaction, ObjectType object, long number) {
        atHand.forget(SqlSession.of(transaction), object, number);
        SqlSession.of(transaction).run(of(object).delete, number);
    }

    @Override
    public long nextInSeries(Transaction transaction, ObjectType object, String series) {
        return this.series.next(SqlSession.of(transaction), object, series);
    }

    @Override
    public Count count(Session session, ObjectType object) {
        return SqlSession.of(session)
                .first(of(object).count, row -> new Count(row.getLong(1), row.getLong(2)))
                .orElseThrow();
    }
}
