package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.event.Delivery;
import sandpiper.engine.event.Event;
import sandpiper.engine.port.EventStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.table.ColumnValues;

/** Events in one table in the order of their numbers, deliveries in another. */
public final class SqlEvents implements EventStorage {
    @Override
    public void add(Transaction transaction, Event event) {
        var sql = SqlSession.of(transaction);
        sql.run(
                sql.isSoleWriter() ? EventSql.ADD : EventSql.ADD_ARRIVING,
                ColumnValues.bytes(event.id()),
                event.name(),
                event.kind().name(),
                ColumnValues.bytes(event.unit()),
                event.object(),
                bytes(event.record()),
                event.key(),
                TemporalType.micros(event.at()),
                event.by(),
                event.via(),
                (long) event.depth(),
                EventData.write(event.data()));
    }

    @Override
    public boolean areArriving(Session session) {
        var sql = SqlSession.of(session);
        return !sql.dialect().hasOneWriter()
                && sql.first(EventSql.ARE_ARRIVING, row -> true).isPresent();
    }

    @Override
    public void arrive(Transaction transaction) {
        SqlSession.of(transaction).run(EventSql.ARRIVE);
    }

    @Override
    public OptionalLong claimPosition(Transaction transaction, String reader) {
        var sql = SqlSession.of(transaction);
        sql.run(EventSql.BEGIN_POSITION, reader, 0L);
        return sql.list(EventSql.CLAIM_POSITION, row -> row.getLong(1), reader).stream()
                .mapToLong(Long::longValue)
                .findFirst();
    }

    @Override
    public Optional<Delivery> claim(Transaction transaction, long number, Instant now) {
        return SqlSession.of(transaction)
                .first(
                        EventSql.CLAIM_DELIVERY,
                        row -> delivery(row, 1),
                        number,
                        TemporalType.micros(now));
    }

    @Override
    public void hold(Transaction transaction, long number, Instant until) {
        SqlSession.of(transaction).run(EventSql.HOLD, TemporalType.micros(until), number);
    }

    private static byte @Nullable [] bytes(@Nullable UUID id) {
        return id == null ? null : ColumnValues.bytes(id);
    }

    private static @Nullable UUID uuid(byte @Nullable [] bytes) {
        return bytes == null ? null : ColumnValues.uuid(bytes);
    }

    private static Event event(ResultSet row, int first) throws SQLException {
        return new Event(
                row.getLong(first),
                ColumnValues.uuid(row.getBytes(first + 1)),
                row.getString(first + 2),
                Event.Kind.valueOf(row.getString(first + 3)),
                ColumnValues.uuid(row.getBytes(first + 4)),
                row.getString(first + 5),
                uuid(row.getBytes(first + 6)),
                row.getString(first + 7),
                TemporalType.instant(row.getLong(first + 8)),
                row.getString(first + 9),
                row.getString(first + 10),
                (int) row.getLong(first + 11),
                EventData.read(row.getString(first + 12)));
    }

    @Override
    public List<Event> after(Session session, long number, int limit) {
        return SqlSession.of(session)
                .list(EventSql.AFTER, row -> event(row, 1), number, (long) limit);
    }

    @Override
    public List<Event> published(
            Session session, long after, @Nullable Collection<String> names, int limit) {
        var where =
                new ArrayList<Condition>(
                        List.of(EventSql.e("number").gt(after), EventSql.PUBLISHED));
        if (names != null) {
            where.add(EventSql.e("name").in(names));
        }
        return SqlSession.of(session)
                .list(
                        EventSql.events(where.toArray(Condition[]::new))
                                .orderBy(EventSql.e("number"))
                                .limit(limit),
                        row -> event(row, 1));
    }

    @Override
    public List<Event> latest(Session session, String search, int limit) {
        return SqlSession.of(session)
                .list(EventSql.LATEST, row -> event(row, 1), search, (long) limit);
    }

    @Override
    public Optional<Event> find(Session session, long number) {
        return SqlSession.of(session).first(EventSql.BY_NUMBER, row -> event(row, 1), number);
    }

    @Override
    public Optional<Event> find(Session session, UUID id) {
        return SqlSession.of(session)
                .first(EventSql.BY_ID, row -> event(row, 1), ColumnValues.bytes(id));
    }

    @Override
    public long newest(Session session) {
        return SqlSession.of(session).number(EventSql.NEWEST);
    }

    @Override
    public long position(Session session, String reader) {
        return SqlSession.of(session).number(EventSql.POSITION, reader);
    }

    @Override
    public void setPosition(Transaction transaction, String reader, long number) {
        SqlSession.of(transaction).run(EventSql.PUT_POSITION, reader, number);
    }

    @Override
    public void addDelivery(Transaction transaction, Delivery delivery) {
        SqlSession.of(transaction)
                .run(
                        EventSql.ADD_DELIVERY,
                        delivery.event(),
                        delivery.target().kind().name(),
                        delivery.target().name(),
                        bytes(delivery.record()),
                        delivery.state().name(),
                        (long) delivery.tries(),
                        TemporalType.micros(delivery.due()),
                        micros(delivery.doneAt()),
                        delivery.said(),
                        bytes(delivery.trace()));
    }

    private static @Nullable Long micros(@Nullable Instant moment) {
        return moment == null ? null : (Long) TemporalType.micros(moment);
    }

    private static Delivery delivery(ResultSet row, int first) throws SQLException {
        long doneAt = row.getLong(first + 8);
        boolean isDone = !row.wasNull();
        return new Delivery(
                row.getLong(first),
                row.getLong(first + 1),
                new Delivery.Target(
                        Delivery.Target.Kind.valueOf(row.getString(first + 2)),
                        row.getString(first + 3)),
                uuid(row.getBytes(first + 4)),
                Delivery.State.valueOf(row.getString(first + 5)),
                (int) row.getLong(first + 6),
                TemporalType.instant(row.getLong(first + 7)),
                isDone ? TemporalType.instant(doneAt) : null,
                row.getString(first + 9),
                uuid(row.getBytes(first + 10)));
    }

    @Override
    public List<Delivery> due(Session session, Delivery.Target.Kind kind, Instant now, int limit) {
        return SqlSession.of(session)
                .list(
                        EventSql.DUE,
                        row -> delivery(row, 1),
                        kind.name(),
                        TemporalType.micros(now),
                        TemporalType.micros(now),
                        (long) limit);
    }

    @Override
    public Optional<Delivery> following(Session session, Delivery done, Instant now) {
        return SqlSession.of(session)
                .first(
                        EventSql.FOLLOWING,
                        row -> delivery(row, 1),
                        done.target().name(),
                        bytes(done.record()),
                        done.target().kind().name(),
                        TemporalType.micros(now),
                        TemporalType.micros(now));
    }

    @Override
    public Optional<Instant> nextDue(Session session, Delivery.Target.Kind kind) {
        return SqlSession.of(session)
                .first(EventSql.NEXT_DUE, row -> TemporalType.instant(row.getLong(1)), kind.name());
    }

    @Override
    public Optional<Delivery> delivery(Session session, long number) {
        return SqlSession.of(session)
                .first(EventSql.FIND_DELIVERY, row -> delivery(row, 1), number);
    }

    @Override
    public void update(Transaction transaction, Delivery delivery) {
        SqlSession.of(transaction)
                .run(
                        EventSql.UPDATE_DELIVERY,
                        delivery.state().name(),
                        (long) delivery.tries(),
                        TemporalType.micros(delivery.due()),
                        micros(delivery.doneAt()),
                        delivery.said(),
                        bytes(delivery.trace()),
                        null,
                        delivery.number());
    }

    @Override
    public List<Delivered> deliveries(Session session, DeliveryFilter wanted) {
        var where = new ArrayList<Condition>(List.of(EventSql.named(DSL.val(wanted.search()))));
        var target = Delivery.Target.read(wanted.target());
        if (target.isPresent()) {
            where.add(EventSql.d("kind").eq(target.get().kind().name()));
            where.add(EventSql.d("target").eq(target.get().name()));
        }
        if (wanted.state() != null) {
            where.add(EventSql.d("state").eq(wanted.state().name()));
        }
        return SqlSession.of(session)
                .list(
                        EventSql.delivered(where.toArray(Condition[]::new))
                                .orderBy(EventSql.d("number").desc())
                                .limit(wanted.limit()),
                        row ->
                                new Delivered(
                                        delivery(row, 1 + EventSql.EVENT.size()), event(row, 1)));
    }

    @Override
    public List<Delivered> waitingOf(Session session, Delivery.Target target, UUID unit) {
        return SqlSession.of(session)
                .list(
                        EventSql.WAITING_OF,
                        row ->
                                new Delivered(
                                        delivery(row, 1 + EventSql.EVENT.size()), event(row, 1)),
                        target.kind().name(),
                        target.name(),
                        ColumnValues.bytes(unit));
    }

    @Override
    public long count(Session session, Delivery.State state) {
        return SqlSession.of(session).number(EventSql.COUNT, state.name());
    }

    @Override
    public void forgetBefore(Transaction transaction, Instant moment) {
        var sql = SqlSession.of(transaction);
        long before = TemporalType.micros(moment);
        sql.run(EventSql.FORGET_DONE, before);
        sql.run(EventSql.FORGET_EVENTS, before);
    }

    @Override
    public void forgetWaiting(Transaction transaction, Delivery.Target target) {
        SqlSession.of(transaction)
                .run(EventSql.FORGET_WAITING, target.kind().name(), target.name());
    }

    @Override
    public void addTry(Transaction transaction, Try one) {
        SqlSession.of(transaction)
                .run(
                        EventSql.ADD_TRY,
                        one.delivery(),
                        TemporalType.micros(one.at()),
                        one.millis(),
                        (long) one.status(),
                        one.request(),
                        one.answer(),
                        one.said());
    }

    @Override
    public List<Try> tries(Session session, long delivery) {
        return SqlSession.of(session)
                .list(
                        EventSql.TRIES_OF,
                        row ->
                                new Try(
                                        row.getLong(1),
                                        TemporalType.instant(row.getLong(2)),
                                        row.getLong(3),
                                        (int) row.getLong(4),
                                        row.getString(5),
                                        row.getString(6),
                                        row.getString(7)),
                        delivery);
    }
}
