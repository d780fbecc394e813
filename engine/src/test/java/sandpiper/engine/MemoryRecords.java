package sandpiper.engine;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.record.Aggregation;
import sandpiper.engine.record.Page;
import sandpiper.engine.record.Query;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.record.StoredRecord;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.Operand;
import sandpiper.logic.condition.Selection;
import sandpiper.logic.value.RecordValue;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/**
 * Records in memory, for tests of the engine alone. Answers what a unit of work asks; queries and
 * conditions other than "refers to this record" belong to the store and its own tests.
 */
public class MemoryRecords implements RecordStorage {
    private final Map<String, Map<Long, StoredRecord>> tables = new HashMap<>();
    private final Map<String, Long> series = new HashMap<>();
    private final Deque<Map<String, Map<Long, StoredRecord>>> marks = new ArrayDeque<>();
    private long last;

    /** Remembers how things are, as a transaction does at a mark. */
    public void mark() {
        var copy = new HashMap<String, Map<Long, StoredRecord>>();
        tables.forEach((name, table) -> copy.put(name, new TreeMap<>(table)));
        marks.push(copy);
    }

    /** Brings back how things were at the last mark. */
    public void undoToMark() {
        tables.clear();
        tables.putAll(marks.pop());
    }

    /** Forgets the last mark. */
    public void keepSinceMark() {
        marks.pop();
    }

    private Map<Long, StoredRecord> table(ObjectType object) {
        return tables.computeIfAbsent(object.name(), _ -> new TreeMap<>());
    }

    /** What is stored of an object, in the order in which it was. */
    public List<StoredRecord> all(ObjectType object) {
        return List.copyOf(table(object).values());
    }

    private Optional<Found> first(ObjectType object, List<Field> fields, List<?> values) {
        return table(object).values().stream()
                .filter(one -> has(one, fields, values))
                .findFirst()
                .map(one -> new Found(one.number(), one.retired()));
    }

    private static boolean has(StoredRecord one, List<Field> fields, List<?> values) {
        for (int i = 0; i < fields.size(); i++) {
            if (!Objects.equals(one.values()[fields.get(i).index()], values.get(i))) {
                return false;
            }
        }
        return true;
    }

    @Override
    public Optional<Found> byKey(Session session, ObjectType object, List<Object> key) {
        return object.key().isEmpty() ? Optional.empty() : first(object, object.keyFields(), key);
    }

    @Override
    public Optional<Found> byId(Session session, ObjectType object, UUID id) {
        return table(object).values().stream()
                .filter(one -> one.id().equals(id))
                .findFirst()
                .map(one -> new Found(one.number(), one.retired()));
    }

    @Override
    public Optional<Found> another(
            Session session,
            ObjectType object,
            List<Field> fields,
            List<Object> values,
            long except) {
        return table(object).values().stream()
                .filter(one -> one.number() != except && has(one, fields, values))
                .findFirst()
                .map(one -> new Found(one.number(), one.retired()));
    }

    @Override
    public Optional<List<@Nullable Object>> keyOf(Session session, ObjectType object, long number) {
        return Optional.ofNullable(table(object).get(number))
                .map(one ->
                        object.keyFields().stream()
                                .map(field -> one.values()[field.index()])
                                .toList());
    }

    @Override
    public Optional<StoredRecord> load(Session session, ObjectType object, long number) {
        return Optional.ofNullable(table(object).get(number));
    }

    @Override
    public List<Long> numbers(
            Session session,
            ObjectType object,
            @Nullable Condition condition,
            List<Selection.Order> order,
            int limit) {
        return table(object).values().stream()
                .filter(one -> !one.retired())
                .filter(one -> condition == null || refers(object, one, condition))
                .map(StoredRecord::number)
                .limit(limit)
                .toList();
    }

    private static boolean refers(ObjectType object, StoredRecord one, Condition condition) {
        if (condition
                        instanceof
                        Condition.Compare(
                                Operand.Field(var path, _, _),
                                _,
                                Operand.Value(RecordValue owner, _))
                && path.size() == 1) {
            var field = object.fields().get(path.getFirst());
            return Objects.equals(one.values()[field.index()], owner.number());
        }
        throw new UnsupportedOperationException("Only the store answers " + condition);
    }

    @Override
    public List<Long> numbersAfter(Session session, ObjectType object, long number, int limit) {
        return table(object).keySet().stream().filter(one -> one > number).limit(limit).toList();
    }

    @Override
    public long highest(Session session, ObjectType object) {
        return last;
    }

    @Override
    public List<Long> referring(
            Session session, ObjectType object, @Nullable Part part, Field field, long number) {
        return table(object).values().stream()
                .filter(one ->
                        part == null
                                ? Objects.equals(one.values()[field.index()], number)
                                : one.items().get(part.index()).stream()
                                        .anyMatch(item ->
                                                Objects.equals(
                                                        item.values()[field.index()], number)))
                .map(StoredRecord::number)
                .toList();
    }

    @Override
    public Optional<Referrer> referrer(
            Session session, ObjectType object, long number, boolean inUse) {
        return Optional.empty();
    }

    @Override
    public long insert(Transaction transaction, ObjectType object, StoredRecord record) {
        last++;
        table(object)
                .put(
                        last,
                        new StoredRecord(
                                last,
                                record.id(),
                                record.version(),
                                record.retired(),
                                record.createdAt(),
                                record.createdBy(),
                                record.changedAt(),
                                record.changedBy(),
                                record.values().clone(),
                                record.items().stream().map(MemoryRecords::copies).toList()));
        return last;
    }

    private static List<StoredRecord.StoredItem> copies(List<StoredRecord.StoredItem> items) {
        return items.stream()
                .map(one -> new StoredRecord.StoredItem(one.line(), one.values().clone()))
                .toList();
    }

    private void replace(
            ObjectType object, StoredRecord head, List<List<StoredRecord.StoredItem>> items) {
        table(object)
                .put(
                        head.number(),
                        new StoredRecord(
                                head.number(),
                                head.id(),
                                head.version(),
                                head.retired(),
                                head.createdAt(),
                                head.createdBy(),
                                head.changedAt(),
                                head.changedBy(),
                                head.values().clone(),
                                items));
    }

    private StoredRecord there(ObjectType object, long number) {
        return Objects.requireNonNull(table(object).get(number));
    }

    @Override
    public void update(
            Transaction transaction, ObjectType object, StoredRecord record, List<Field> changed) {
        replace(object, record, there(object, record.number()).items());
    }

    private void change(
            ObjectType object,
            Part part,
            long owner,
            java.util.function.UnaryOperator<List<StoredRecord.StoredItem>> change) {
        var record = there(object, owner);
        var items = new ArrayList<>(record.items());
        items.set(part.index(), change.apply(new ArrayList<>(items.get(part.index()))));
        replace(object, record, items);
    }

    @Override
    public void insertItem(
            Transaction transaction,
            ObjectType object,
            Part part,
            long owner,
            StoredRecord.StoredItem item,
            int position) {
        change(
                object,
                part,
                owner,
                items -> {
                    items.add(Math.min(position, items.size()), item);
                    return copies(items);
                });
    }

    @Override
    public void updateItem(
            Transaction transaction,
            ObjectType object,
            Part part,
            long owner,
            StoredRecord.StoredItem item,
            int position,
            List<Field> changed) {
        change(
                object,
                part,
                owner,
                items -> {
                    items.removeIf(one -> one.line() == item.line());
                    items.add(Math.min(position, items.size()), item);
                    return copies(items);
                });
    }

    @Override
    public void deleteItem(
            Transaction transaction, ObjectType object, Part part, long owner, long line) {
        change(
                object,
                part,
                owner,
                items -> {
                    items.removeIf(one -> one.line() == line);
                    return items;
                });
    }

    @Override
    public long lastLine(Session session, ObjectType object, Part part, long owner) {
        return there(object, owner).items().get(part.index()).stream()
                .mapToLong(StoredRecord.StoredItem::line)
                .max()
                .orElse(0);
    }

    @Override
    public void delete(Transaction transaction, ObjectType object, long number) {
        table(object).remove(number);
    }

    @Override
    public long nextInSeries(Transaction transaction, ObjectType object, String name) {
        return series.merge(object.name() + '/' + name, 1L, Long::sum);
    }

    @Override
    public Count count(Session session, ObjectType object) {
        long retired = all(object).stream().filter(StoredRecord::retired).count();
        return new Count(all(object).size() - retired, retired);
    }

    @Override
    public @Nullable Object total(
            Session session,
            ObjectType object,
            @Nullable Condition condition,
            String function,
            List<String> path) {
        var values =
                numbers(session, object, condition, List.of(), Integer.MAX_VALUE).stream()
                        .map(number -> there(object, number).values())
                        .map(one ->
                                path.isEmpty()
                                        ? null
                                        : (Long) one[object.fields().get(path.getLast()).index()])
                        .toList();
        var longs = values.stream().filter(Objects::nonNull).mapToLong(Long::longValue);
        return switch (function) {
            case "count" -> (long) values.size();
            case "sum" -> longs.sum();
            case "max" -> longs.max().stream().boxed().findFirst().orElse(null);
            case "min" -> longs.min().stream().boxed().findFirst().orElse(null);
            default -> throw notHere();
        };
    }

    @Override
    public Optional<RecordView> view(
            Session session, ObjectType object, long number, FieldTree tree) {
        throw notHere();
    }

    @Override
    public Page page(Session session, Query query) {
        throw notHere();
    }

    @Override
    public List<Aggregation.Row> aggregate(Session session, Query query, Aggregation wanted) {
        throw notHere();
    }

    @Override
    public boolean holds(Session session, ObjectType object, long number, Condition condition) {
        throw notHere();
    }

    private static UnsupportedOperationException notHere() {
        return new UnsupportedOperationException("Only the store answers this.");
    }

    /** The values of a record by the names of its fields, in stored form; empty ones left out. */
    public Map<String, Object> values(ObjectType object, String key) {
        var found =
                all(object).stream()
                        .filter(one ->
                                Arrays.asList(one.values()).contains(key)
                                        || one.id().toString().equals(key))
                        .findFirst()
                        .orElseThrow();
        var values = new TreeMap<String, Object>();
        for (var field : object.fields()) {
            var value = found.values()[field.index()];
            if (value != null) {
                values.put(field.name(), value);
            }
        }
        return values;
    }
}
