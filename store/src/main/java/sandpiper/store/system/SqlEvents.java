package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
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
    private static final String EVENT =
            "e.number, e.id, e.name, e.kind, e.unit, e.object, e.record, e.key, e.at, e.actor,"
                    + " e.via, e.depth, e.data";
    private static final int EVENT_COLUMNS = 13;
    private static final String DELIVERY =
            "d.number, d.event, d.kind, d.target, d.record, d.state, d.tries, d.due, d.done_at,"
                    + " d.said, d.trace";
    private static final String PUBLISHED = "e.kind = 'RAISED'";

    /** An earlier delivery about the same record that still waits. */
    private static final String BLOCKED =
            "exists (select 1 from sandpiper_delivery b where b.state = 'WAITING' and b.target ="
                    + " d.target and b.record = d.record and b.event < d.event and b.kind ="
                    + " d.kind)";

    @Override
    public long add(Transaction transaction, Event event) {
        return SqlSession.of(transaction)
                .insert(
                        "insert into sandpiper_event (id, name, kind, unit, object, record, key,"
                                + " at, actor, via, depth, data) values (?, ?, ?, ?, ?, ?, ?, ?, ?,"
                                + " ?, ?, ?)",
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
                .list(
                        "select "
                                + EVENT
                                + " from sandpiper_event e where e.number > ? order by e.number"
                                + " limit ?",
                        row -> event(row, 1),
                        number,
                        (long) limit);
    }

    @Override
    public List<Event> published(
            Session session, long after, @Nullable Collection<String> names, int limit) {
        var sql = new StringBuilder("select ").append(EVENT);
        sql.append(" from sandpiper_event e where e.number > ? and ").append(PUBLISHED);
        var values = new ArrayList<@Nullable Object>(List.of(after));
        if (names != null) {
            sql.append(" and e.name in (");
            sql.append(String.join(", ", names.stream().map(_ -> "?").toList())).append(')');
            values.addAll(names);
        }
        sql.append(" order by e.number limit ?");
        values.add((long) limit);
        return SqlSession.of(session).list(sql.toString(), row -> event(row, 1), values.toArray());
    }

    @Override
    public List<Event> latest(Session session, String search, int limit) {
        return SqlSession.of(session)
                .list(
                        "select "
                                + EVENT
                                + " from sandpiper_event e where "
                                + PUBLISHED
                                + " and instr(lower(e.name || ' ' || coalesce(e.key, '')),"
                                + " lower(?)) > 0 order by e.number desc limit ?",
                        row -> event(row, 1),
                        search,
                        (long) limit);
    }

    @Override
    public Optional<Event> find(Session session, long number) {
        return SqlSession.of(session)
                .first(
                        "select " + EVENT + " from sandpiper_event e where e.number = ?",
                        row -> event(row, 1),
                        number);
    }

    @Override
    public Optional<Event> find(Session session, UUID id) {
        return SqlSession.of(session)
                .first(
                        "select " + EVENT + " from sandpiper_event e where e.id = ?",
                        row -> event(row, 1),
                        ColumnValues.bytes(id));
    }

    @Override
    public long newest(Session session) {
        return SqlSession.of(session)
                .number("select coalesce(max(number), 0) from sandpiper_event");
    }

    @Override
    public long position(Session session, String reader) {
        return SqlSession.of(session)
                .number("select number from sandpiper_event_position where reader = ?", reader);
    }

    @Override
    public void setPosition(Transaction transaction, String reader, long number) {
        SqlSession.of(transaction)
                .run(
                        "insert into sandpiper_event_position (reader, number) values (?, ?) on"
                                + " conflict do update set number = excluded.number",
                        reader,
                        number);
    }

    @Override
    public void addDelivery(Transaction transaction, Delivery delivery) {
        SqlSession.of(transaction)
                .run(
                        "insert into sandpiper_delivery (event, kind, target, record, state, tries,"
                                + " due, done_at, said, trace) values (?, ?, ?, ?, ?, ?, ?, ?, ?,"
                                + " ?)",
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
                        "select "
                                + DELIVERY
                                + " from sandpiper_delivery d where d.state = 'WAITING' and d.kind"
                                + " = ? and d.due <= ? and not "
                                + BLOCKED
                                + " order by d.due, d.number limit ?",
                        row -> delivery(row, 1),
                        kind.name(),
                        TemporalType.micros(now),
                        (long) limit);
    }

    @Override
    public Optional<Instant> nextDue(Session session, Delivery.Target.Kind kind) {
        return SqlSession.of(session)
                .first(
                        "select d.due from sandpiper_delivery d where d.state = 'WAITING' and"
                                + " d.kind = ? and not "
                                + BLOCKED
                                + " order by d.due limit 1",
                        row -> TemporalType.instant(row.getLong(1)),
                        kind.name());
    }

    @Override
    public Optional<Delivery> delivery(Session session, long number) {
        return SqlSession.of(session)
                .first(
                        "select " + DELIVERY + " from sandpiper_delivery d where d.number = ?",
                        row -> delivery(row, 1),
                        number);
    }

    @Override
    public void update(Transaction transaction, Delivery delivery) {
        SqlSession.of(transaction)
                .run(
                        "update sandpiper_delivery set state = ?, tries = ?, due = ?, done_at = ?,"
                                + " said = ?, trace = ? where number = ?",
                        delivery.state().name(),
                        (long) delivery.tries(),
                        TemporalType.micros(delivery.due()),
                        micros(delivery.doneAt()),
                        delivery.said(),
                        bytes(delivery.trace()),
                        delivery.number());
    }

    @Override
    public List<Delivered> deliveries(Session session, DeliveryFilter wanted) {
        var sql = new StringBuilder("select ").append(EVENT).append(", ").append(DELIVERY);
        sql.append(" from sandpiper_delivery d join sandpiper_event e on e.number = d.event where")
                .append(" instr(lower(e.name || ' ' || coalesce(e.key, '')), lower(?)) > 0");
        var values = new ArrayList<@Nullable Object>(List.of(wanted.search()));
        var target = Delivery.Target.read(wanted.target());
        if (target.isPresent()) {
            sql.append(" and d.kind = ? and d.target = ?");
            values.add(target.get().kind().name());
            values.add(target.get().name());
        }
        if (wanted.state() != null) {
            sql.append(" and d.state = ?");
            values.add(wanted.state().name());
        }
        sql.append(" order by d.number desc limit ?");
        values.add((long) wanted.limit());
        return SqlSession.of(session)
                .list(
                        sql.toString(),
                        row -> new Delivered(delivery(row, 1 + EVENT_COLUMNS), event(row, 1)),
                        values.toArray());
    }

    @Override
    public List<Delivered> waitingOf(Session session, Delivery.Target target, UUID unit) {
        return SqlSession.of(session)
                .list(
                        "select "
                                + EVENT
                                + ", "
                                + DELIVERY
                                + " from sandpiper_delivery d join sandpiper_event e on e.number ="
                                + " d.event where d.state = 'WAITING' and d.kind = ? and d.target ="
                                + " ? and e.unit = ? order by e.number",
                        row -> new Delivered(delivery(row, 1 + EVENT_COLUMNS), event(row, 1)),
                        target.kind().name(),
                        target.name(),
                        ColumnValues.bytes(unit));
    }

    @Override
    public long count(Session session, Delivery.State state) {
        return SqlSession.of(session)
                .number("select count(*) from sandpiper_delivery where state = ?", state.name());
    }

    @Override
    public void forgetBefore(Transaction transaction, Instant moment) {
        var sql = SqlSession.of(transaction);
        long before = TemporalType.micros(moment);
        sql.run("delete from sandpiper_delivery where state = 'DONE' and done_at < ?", before);
        sql.run(
                "delete from sandpiper_event where at < ? and number <= (select min(number) from"
                        + " sandpiper_event_position) and not exists (select 1 from"
                        + " sandpiper_delivery d where d.event = sandpiper_event.number)",
                before);
    }

    @Override
    public void forgetWaiting(Transaction transaction, Delivery.Target target) {
        SqlSession.of(transaction)
                .run(
                        "delete from sandpiper_delivery where state = 'WAITING' and kind = ? and"
                                + " target = ?",
                        target.kind().name(),
                        target.name());
    }

    @Override
    public void addTry(Transaction transaction, Try one) {
        SqlSession.of(transaction)
                .run(
                        "insert into sandpiper_delivery_try (delivery, at, millis, status, request,"
                                + " answer, said) values (?, ?, ?, ?, ?, ?, ?)",
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
                        "select delivery, at, millis, status, request, answer, said from"
                                + " sandpiper_delivery_try where delivery = ? order by number desc",
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
