package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Stream;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.SelectConditionStep;
import org.jooq.Table;
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
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import sandpiper.store.table.Tables;

/** Events in one table in the order of their numbers, deliveries in another. */
public final class SqlEvents implements EventStorage {
    private static final TableStatements EVENTS = new TableStatements("sandpiper_event");
    private static final TableStatements POSITIONS =
            new TableStatements("sandpiper_event_position");
    private static final TableStatements DELIVERIES = new TableStatements("sandpiper_delivery");
    private static final TableStatements TRIES = new TableStatements("sandpiper_delivery_try");
    private static final Table<?> E = EVENTS.as("e");
    private static final Table<?> D = DELIVERIES.as("d");

    private static final String[] OF_EVENT = {
        "id", "name", "kind", "unit", "object", "record", "key", "at", "actor", "via", "depth",
        "data"
    };
    private static final String[] OF_DELIVERY = {
        "event", "kind", "target", "record", "state", "tries", "due", "done_at", "said", "trace"
    };
    private static final String[] OF_TRY = {
        "delivery", "at", "millis", "status", "request", "answer", "said"
    };
    private static final List<Field<Object>> EVENT = numbered("e", OF_EVENT);
    private static final List<Field<Object>> DELIVERY = numbered("d", OF_DELIVERY);

    private static final Condition PUBLISHED = e("kind").eq(DSL.inline("RAISED"));
    private static final Condition WAITING = d("state").eq(DSL.inline("WAITING"));

    /** An earlier delivery about the same record that still waits. */
    private static final Condition BLOCKED =
            DSL.exists(
                    DSL.selectOne()
                            .from(DELIVERIES.as("b"))
                            .where(
                                    Sql.column("b", "state").eq(DSL.inline("WAITING")),
                                    Sql.column("b", "target").eq(d("target")),
                                    Sql.column("b", "record").eq(d("record")),
                                    Sql.column("b", "event").lt(d("event")),
                                    Sql.column("b", "kind").eq(d("kind"))));

    private static final String ADD = EVENTS.insert(OF_EVENT);
    private static final String AFTER =
            Sql.text(events(e("number").gt(Sql.value())).orderBy(e("number")).limit(Sql.count()));
    private static final String LATEST =
            Sql.text(
                    events(PUBLISHED, named(Sql.value()))
                            .orderBy(e("number").desc())
                            .limit(Sql.count()));
    private static final String BY_NUMBER = Sql.text(events(e("number").eq(Sql.value())));
    private static final String BY_ID = Sql.text(events(e("id").eq(Sql.value())));
    private static final String NEWEST =
            Sql.text(
                    Tables.sql()
                            .select(DSL.coalesce(DSL.max(Sql.number("number")), DSL.inline(0L)))
                            .from(EVENTS.table()));
    private static final String POSITION = POSITIONS.selectBy("reader", "number");
    private static final String PUT_POSITION = POSITIONS.put(List.of("reader"), "number");
    private static final String ADD_DELIVERY = DELIVERIES.insert(OF_DELIVERY);
    private static final String DUE =
            Sql.text(
                    Tables.sql()
                            .select(DELIVERY)
                            .from(D)
                            .where(
                                    WAITING,
                                    d("kind").eq(Sql.value()),
                                    d("due").le(Sql.value()),
                                    DSL.not(BLOCKED))
                            .orderBy(d("due"), d("number"))
                            .limit(Sql.count()));
    private static final String NEXT_DUE =
            Sql.text(
                    Tables.sql()
                            .select(d("due"))
                            .from(D)
                            .where(WAITING, d("kind").eq(Sql.value()), DSL.not(BLOCKED))
                            .orderBy(d("due"))
                            .limit(DSL.inline(1)));
    private static final String FIND_DELIVERY =
            Sql.text(Tables.sql().select(DELIVERY).from(D).where(d("number").eq(Sql.value())));
    private static final String UPDATE_DELIVERY =
            DELIVERIES.update(
                    List.of("state", "tries", "due", "done_at", "said", "trace"), Sql.is("number"));
    private static final String WAITING_OF =
            Sql.text(
                    delivered(
                                    WAITING,
                                    d("kind").eq(Sql.value()),
                                    d("target").eq(Sql.value()),
                                    e("unit").eq(Sql.value()))
                            .orderBy(e("number")));
    private static final String COUNT =
            Sql.text(
                    Tables.sql()
                            .select(DSL.count())
                            .from(DELIVERIES.table())
                            .where(Sql.is("state")));
    private static final String FORGET_DONE =
            DELIVERIES.delete(
                    DSL.and(Sql.is("state", "DONE"), Sql.column("done_at").lt(Sql.value())));
    private static final String FORGET_EVENTS =
            EVENTS.delete(
                    DSL.and(
                            Sql.column("at").lt(Sql.value()),
                            Sql.number("number")
                                    .le(
                                            DSL.select(DSL.min(Sql.number("number")))
                                                    .from(POSITIONS.table())),
                            DSL.notExists(
                                    DSL.selectOne()
                                            .from(D)
                                            .where(
                                                    Sql.column("d", "event")
                                                            .eq(EVENTS.column("number"))))));
    private static final String FORGET_WAITING =
            DELIVERIES.delete(
                    DSL.and(Sql.is("state", "WAITING"), Sql.is("kind"), Sql.is("target")));
    private static final String ADD_TRY = TRIES.insert(OF_TRY);
    private static final String TRIES_OF =
            Sql.text(
                    TRIES.select(OF_TRY)
                            .where(Sql.is("delivery"))
                            .orderBy(Sql.number("number").desc()));

    private static Field<Object> e(String column) {
        return Sql.column("e", column);
    }

    private static Field<Object> d(String column) {
        return Sql.column("d", column);
    }

    /** The number of a row and then the others of its columns. */
    private static List<Field<Object>> numbered(String of, String... columns) {
        return Stream.concat(Stream.of("number"), Stream.of(columns))
                .map(column -> Sql.column(of, column))
                .toList();
    }

    private static SelectConditionStep<?> events(Condition... where) {
        return Tables.sql().select(EVENT).from(E).where(where);
    }

    private static SelectConditionStep<?> delivered(Condition... where) {
        return Tables.sql()
                .select(EVENT)
                .select(DELIVERY)
                .from(D)
                .join(E)
                .on(e("number").eq(d("event")))
                .where(where);
    }

    /** That the name of an event or the key of its record has a text in it. */
    private static Condition named(Field<?> wanted) {
        return Sql.contains(
                DSL.field("({0} || ' ' || coalesce({1}, ''))", String.class, e("name"), e("key")),
                wanted);
    }

    @Override
    public long add(Transaction transaction, Event event) {
        return SqlSession.of(transaction)
                .insert(
                        ADD,
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
        return SqlSession.of(session).list(AFTER, row -> event(row, 1), number, (long) limit);
    }

    @Override
    public List<Event> published(
            Session session, long after, @Nullable Collection<String> names, int limit) {
        var where = new ArrayList<Condition>(List.of(e("number").gt(after), PUBLISHED));
        if (names != null) {
            where.add(e("name").in(names));
        }
        return SqlSession.of(session)
                .list(
                        events(where.toArray(Condition[]::new)).orderBy(e("number")).limit(limit),
                        row -> event(row, 1));
    }

    @Override
    public List<Event> latest(Session session, String search, int limit) {
        return SqlSession.of(session).list(LATEST, row -> event(row, 1), search, (long) limit);
    }

    @Override
    public Optional<Event> find(Session session, long number) {
        return SqlSession.of(session).first(BY_NUMBER, row -> event(row, 1), number);
    }

    @Override
    public Optional<Event> find(Session session, UUID id) {
        return SqlSession.of(session).first(BY_ID, row -> event(row, 1), ColumnValues.bytes(id));
    }

    @Override
    public long newest(Session session) {
        return SqlSession.of(session).number(NEWEST);
    }

    @Override
    public long position(Session session, String reader) {
        return SqlSession.of(session).number(POSITION, reader);
    }

    @Override
    public void setPosition(Transaction transaction, String reader, long number) {
        SqlSession.of(transaction).run(PUT_POSITION, reader, number);
    }

    @Override
    public void addDelivery(Transaction transaction, Delivery delivery) {
        SqlSession.of(transaction)
                .run(
                        ADD_DELIVERY,
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
                        DUE,
                        row -> delivery(row, 1),
                        kind.name(),
                        TemporalType.micros(now),
                        (long) limit);
    }

    @Override
    public Optional<Instant> nextDue(Session session, Delivery.Target.Kind kind) {
        return SqlSession.of(session)
                .first(NEXT_DUE, row -> TemporalType.instant(row.getLong(1)), kind.name());
    }

    @Override
    public Optional<Delivery> delivery(Session session, long number) {
        return SqlSession.of(session).first(FIND_DELIVERY, row -> delivery(row, 1), number);
    }

    @Override
    public void update(Transaction transaction, Delivery delivery) {
        SqlSession.of(transaction)
                .run(
                        UPDATE_DELIVERY,
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
        var where = new ArrayList<Condition>(List.of(named(DSL.val(wanted.search()))));
        var target = Delivery.Target.read(wanted.target());
        if (target.isPresent()) {
            where.add(d("kind").eq(target.get().kind().name()));
            where.add(d("target").eq(target.get().name()));
        }
        if (wanted.state() != null) {
            where.add(d("state").eq(wanted.state().name()));
        }
        return SqlSession.of(session)
                .list(
                        delivered(where.toArray(Condition[]::new))
                                .orderBy(d("number").desc())
                                .limit(wanted.limit()),
                        row -> new Delivered(delivery(row, 1 + EVENT.size()), event(row, 1)));
    }

    @Override
    public List<Delivered> waitingOf(Session session, Delivery.Target target, UUID unit) {
        return SqlSession.of(session)
                .list(
                        WAITING_OF,
                        row -> new Delivered(delivery(row, 1 + EVENT.size()), event(row, 1)),
                        target.kind().name(),
                        target.name(),
                        ColumnValues.bytes(unit));
    }

    @Override
    public long count(Session session, Delivery.State state) {
        return SqlSession.of(session).number(COUNT, state.name());
    }

    @Override
    public void forgetBefore(Transaction transaction, Instant moment) {
        var sql = SqlSession.of(transaction);
        long before = TemporalType.micros(moment);
        sql.run(FORGET_DONE, before);
        sql.run(FORGET_EVENTS, before);
    }

    @Override
    public void forgetWaiting(Transaction transaction, Delivery.Target target) {
        SqlSession.of(transaction).run(FORGET_WAITING, target.kind().name(), target.name());
    }

    @Override
    public void addTry(Transaction transaction, Try one) {
        SqlSession.of(transaction)
                .run(
                        ADD_TRY,
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
                        TRIES_OF,
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
