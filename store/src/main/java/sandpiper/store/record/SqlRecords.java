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
import java.util.concurrent.ConcurrentHashMap;
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
import sandpiper.store.sql.Statement;
import sandpiper.store.system.SqlFiles;
import sandpiper.store.table.ColumnValues;
import sandpiper.store.table.Tables;

/** The records of one release. Safe to share between threads; sessions are not. */
public final class SqlRecords implements RecordStorage {
    private final Release release;
    private final Series series;
    private final RecordReader reader;
    private final RecordSelector selector;
    private final Map<String, ObjectSql> statements = new HashMap<>();
    private final Map<String, Statement> together = new ConcurrentHashMap<>();
    private final WriterRecordCache ofSoleWriter = new WriterRecordCache();

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

    /** What a session that writes has at hand; nothing for one that reads. */
    private @Nullable WriterRecordCache atHand(SqlSession session) {
        if (session.isSoleWriter()) {
            return ofSoleWriter;
        }
        return session.isWriting() ? session.along(this, WriterRecordCache::new) : null;
    }

    private void forget(Transaction transaction, ObjectType object, long number) {
        var sql = SqlSession.of(transaction);
        var atHand = atHand(sql);
        if (atHand != null) {
            atHand.forget(sql, object, number);
        }
    }

    private ItemRows items(ObjectType object, Part part) {
        return new ItemRows(part, of(object).parts.get(part.index()));
    }

    @Override
    public Optional<Found> byKey(Session session, ObjectType object, List<Object> key) {
        var sql = SqlSession.of(session);
        var atHand = atHand(sql);
        var known = atHand == null ? null : atHand.byKey(object, key);
        if (known != null) {
            return Optional.of(known);
        }
        if (atHand == null || sql.isSoleWriter() || !object.parts().isEmpty()) {
            return another(session, object, object.keyFields(), key, -1);
        }
        // Whoever writes and looks for a record needs its values next, and each question is a way
        // to the database and back.
        var fields = object.keyFields();
        var read =
                sql.first(
                        of(object).loadByKey,
                        row -> record(row, object, List.of()),
                        firsts(fields, key).toArray());
        read.ifPresent(record -> atHand.keep(sql, object, record));
        return read.map(record -> new Found(record.number(), record.retired()));
    }

    @Override
    public void expect(Session session, Map<ObjectType, List<List<Object>>> keys) {
        var sql = SqlSession.of(session);
        var atHand = atHand(sql);
        // In a file a question costs little, and most records are at hand.
        if (atHand != null && !sql.isSoleWriter()) {
            new ExpectedRecords(together, this::of, atHand).read(sql, keys);
        }
    }

    /** What a row says of a record without line items. */
    static StoredRecord record(ResultSet row, ObjectType object) throws SQLException {
        return record(row, object, List.of());
    }

    /**
     * Of a value with several columns the first tells: a localised text is unique in its main
     * language.
     */
    static List<@Nullable Object> firsts(List<Field> fields, List<Object> values) {
        var bound = new ArrayList<@Nullable Object>();
        for (int i = 0; i < fields.size(); i++) {
            bound.add(ColumnValues.split(fields.get(i), values.get(i)).getFirst());
        }
        return bound;
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
        var bound = firsts(fields, values);
        bound.add(except);
        return SqlSession.of(session)
                .first(of(object).byFields(fields), SqlRecords::found, bound.toArray());
    }

    @Override
    public boolean isTaken(Transaction transaction, ObjectType object, Field field, Object value) {
        return series.beside(
                SqlSession.of(transaction),
                session ->
                        another(session, object, List.of(field), List.of(value), -1).isPresent());
    }

    private static Found found(ResultSet row) throws SQLException {
        return new Found(row.getLong(1), row.getLong(2) != 0);
    }

    @Override
    public Optional<List<@Nullable Object>> keyOf(Session session, ObjectType object, long number) {
        var key = object.keyFields();
        var atHand = atHand(SqlSession.of(session));
        var known = atHand == null ? null : atHand.record(object, number);
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
        var atHand = atHand(sql);
        if (atHand == null) {
            return read(sql, object, number);
        }
        var known = atHand.record(object, number);
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
        return sql.first(statementsOfObject.load, row -> record(row, object, items), number);
    }

    private static StoredRecord record(
            ResultSet row, ObjectType object, List<List<StoredItem>> items) throws SQLException {
        return new StoredRecord(
                row.getLong(1),
                ColumnValues.uuid(row.getBytes(2)),
                row.getLong(3),
                row.getLong(4) != 0,
                TemporalType.instant(row.getLong(5)),
                row.getString(6),
                TemporalType.instant(row.getLong(7)),
                row.getString(8),
                values(object.fields(), row, Tables.RECORD_COLUMNS.size() + 1),
                items);
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
    public Optional<RecordView> viewByKey(
            Session session, ObjectType object, List<Object> key, FieldTree tree) {
        var sql = SqlSession.of(session);
        // In a file a question costs little, and the two were faster (measured in ./bench).
        return sql.dialect().hasOneWriter()
                ? RecordStorage.super.viewByKey(session, object, key, tree)
                : reader.viewByKey(sql, object, firsts(object.keyFields(), key), tree);
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
        return selector.referrer(SqlSession.of(session), object, number, inUse);
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
        forget(transaction, object, number);
        for (var part : object.parts()) {
            items(object, part).insertAll(sql, number, record.items().get(part.index()));
        }
        return number;
    }

    @Override
    public void update(
            Transaction transaction, ObjectType object, StoredRecord record, List<Field> changed) {
        var sql = SqlSession.of(transaction);
        forget(transaction, object, record.number());
        ItemRows.keepFiles(sql, of(object).files, changed, record.values());
        var values = new ArrayList<@Nullable Object>();
        values.add(record.version());
        values.add(record.retired());
        values.add(TemporalType.micros(record.changedAt()));
        values.add(record.changedBy());
        changed.forEach(field -> ColumnValues.split(field, record.values()[field.index()], values));
        values.add(record.number());
        sql.run(of(object).update(changed), values.toArray());
    }

    @Override
    public void insertItem(
            Transaction transaction,
            ObjectType object,
            Part part,
            long owner,
            StoredItem item,
            int position) {
        forget(transaction, object, owner);
        items(object, part).insert(SqlSession.of(transaction), owner, item, position);
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
        forget(transaction, object, owner);
        items(object, part).update(SqlSession.of(transaction), owner, item, position, changed);
    }

    @Override
    public void deleteItem(
            Transaction transaction, ObjectType object, Part part, long owner, long line) {
        forget(transaction, object, owner);
        SqlSession.of(transaction).run(of(object).parts.get(part.index()).delete, owner, line);
    }

    @Override
    public long lastLine(Session session, ObjectType object, Part part, long owner) {
        return SqlSession.of(session).number(of(object).parts.get(part.index()).lastLine, owner);
    }

    @Override
    public void delete(Transaction transaction, ObjectType object, long number) {
        forget(transaction, object, number);
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
