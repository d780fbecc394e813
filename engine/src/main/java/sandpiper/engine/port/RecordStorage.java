package sandpiper.engine.port;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.record.Aggregation;
import sandpiper.engine.record.Page;
import sandpiper.engine.record.Query;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.record.StoredRecord;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.Selection;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/** The records of one release. Values are in stored form. */
public interface RecordStorage {
    /** A record that was found: its internal number, and whether it is retired. */
    record Found(long number, boolean retired) {}

    Optional<Found> byKey(Session session, ObjectType object, List<Object> key);

    /**
     * Says which records will be looked for by their keys, so that they may be found together. What
     * is found is the same without.
     */
    default void expect(Session session, Map<ObjectType, List<List<Object>>> keys) {}

    Optional<Found> byId(Session session, ObjectType object, UUID id);

    /**
     * The number of some record, other than {@code except}, that has these values in these fields.
     */
    Optional<Found> another(
            Session session,
            ObjectType object,
            List<Field> fields,
            List<Object> values,
            long except);

    /** The values of the natural key of a record, or nothing when there is no such record. */
    Optional<List<@Nullable Object>> keyOf(Session session, ObjectType object, long number);

    /** A whole record with all its line items. */
    Optional<StoredRecord> load(Session session, ObjectType object, long number);

    /**
     * Whether another record has a value in a field that is unique, as far as is known. What others
     * add meanwhile may not be seen; it is noticed when both are stored.
     */
    default boolean isTaken(Transaction transaction, ObjectType object, Field field, Object value) {
        return another(transaction, object, List.of(field), List.of(value), -1).isPresent();
    }

    /** A record with the chosen fields only. */
    Optional<RecordView> view(Session session, ObjectType object, long number, FieldTree tree);

    /** The same of the record of a natural key. */
    default Optional<RecordView> viewByKey(
            Session session, ObjectType object, List<Object> key, FieldTree tree) {
        return byKey(session, object, key)
                .flatMap(found -> view(session, object, found.number(), tree));
    }

    /** One page of the records a query selects. */
    Page page(Session session, Query query);

    /** What the records of a query come to; its order and page play no part. */
    List<Aggregation.Row> aggregate(Session session, Query query, Aggregation wanted);

    /** Whether a condition holds for a record, in use or retired. */
    boolean holds(Session session, ObjectType object, long number, Condition condition);

    /**
     * Numbers of the records in use for which a condition holds, in the order of their creation.
     *
     * @param condition {@code null} for all
     */
    default List<Long> numbers(
            Session session, ObjectType object, @Nullable Condition condition, int limit) {
        return numbers(session, object, condition, List.of(), limit);
    }

    /**
     * The same in an order; what is equal by it comes in the order of creation.
     *
     * @param order empty values come first, last when descending
     */
    List<Long> numbers(
            Session session,
            ObjectType object,
            @Nullable Condition condition,
            List<Selection.Order> order,
            int limit);

    /** Numbers of the records behind a number, in use or retired, in their order. */
    List<Long> numbersAfter(Session session, ObjectType object, long number, int limit);

    /** The highest number of a record; 0 when there is none. */
    long highest(Session session, ObjectType object);

    /**
     * One value over the records in use for which a condition holds, in stored form.
     *
     * @param function {@code count}, {@code sum}, {@code min} or {@code max}
     * @param path from each record to what is added up or compared; empty to count
     * @return a {@link Long} for a count; otherwise the value, or {@code null} when there is none
     */
    @Nullable Object total(
            Session session,
            ObjectType object,
            @Nullable Condition condition,
            String function,
            List<String> path);

    /**
     * Numbers of the records that refer to a record, themselves or by their line items, retired
     * ones too.
     *
     * @param part whose items refer, or {@code null}
     */
    List<Long> referring(
            Session session, ObjectType object, @Nullable Part part, Field field, long number);

    /**
     * Whose records refer to one, leaving out that it may refer to itself; nothing when none do.
     *
     * @param inUse whether only those count that are not retired
     */
    Optional<Referrer> referrer(Session session, ObjectType object, long number, boolean inUse);

    /** Who refers to a record. */
    record Referrer(ObjectType object, long count) {}

    /** Inserts a record with its items; its number is given by the storage and returned. */
    long insert(Transaction transaction, ObjectType object, StoredRecord record);

    /**
     * Writes the head of a record (version, retired, changed) and those values whose fields are
     * named.
     */
    void update(
            Transaction transaction, ObjectType object, StoredRecord record, List<Field> changed);

    void insertItem(
            Transaction transaction,
            ObjectType object,
            Part part,
            long owner,
            StoredRecord.StoredItem item,
            int position);

    void updateItem(
            Transaction transaction,
            ObjectType object,
            Part part,
            long owner,
            StoredRecord.StoredItem item,
            int position,
            List<Field> changed);

    void deleteItem(Transaction transaction, ObjectType object, Part part, long owner, long line);

    /** The highest line in a part of a record; 0 when it has none. */
    long lastLine(Session session, ObjectType object, Part part, long owner);

    void delete(Transaction transaction, ObjectType object, long number);

    /** The next count of a numbering series, from 1. */
    long nextInSeries(Transaction transaction, ObjectType object, String series);

    /** How many records of an object are in use, and how many are retired. */
    Count count(Session session, ObjectType object);

    /** Records in use and retired ones. */
    record Count(long inUse, long retired) {}
}
