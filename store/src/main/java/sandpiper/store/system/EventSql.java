package sandpiper.store.system;

import java.util.List;
import java.util.stream.Stream;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.Record1;
import org.jooq.Select;
import org.jooq.SelectConditionStep;
import org.jooq.Table;
import org.jooq.impl.DSL;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import sandpiper.store.table.Tables;

/** The statements about events and deliveries, rendered once. */
final class EventSql {
    private static final TableStatements EVENTS = new TableStatements("sandpiper_event");
    private static final TableStatements POSITIONS =
            new TableStatements("sandpiper_event_position");
    private static final TableStatements DELIVERIES = new TableStatements("sandpiper_delivery");
    private static final TableStatements TRIES = new TableStatements("sandpiper_delivery_try");
    private static final Table<?> E = EVENTS.as("e");
    private static final Table<?> D = DELIVERIES.as("d");

    /** Another delivery than {@link #D}. */
    private static final Table<?> B = DELIVERIES.as("b");

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
    static final List<Field<Object>> EVENT = numbered("e", OF_EVENT);
    private static final List<Field<Object>> DELIVERY = numbered("d", OF_DELIVERY);

    static final Condition PUBLISHED = e("kind").eq(DSL.inline("RAISED"));
    private static final Condition WAITING = d("state").eq(DSL.inline("WAITING"));

    /** That nobody holds it at a moment. */
    private static final Condition FREE =
            DSL.coalesce(d("held_until"), DSL.inline(0L)).le(Sql.count());

    /** An earlier delivery about the same record that still waits. */
    private static final Condition BLOCKED =
            DSL.exists(
                    DSL.selectOne()
                            .from(B)
                            .where(
                                    b("state").eq(DSL.inline("WAITING")),
                                    b("target").eq(d("target")),
                                    b("record").eq(d("record")),
                                    b("event").lt(d("event")),
                                    b("kind").eq(d("kind"))));

    /** Of those to a target about a record the one that the others wait for. */
    private static final Select<Record1<Object>> FIRST_IN_LINE =
            Tables.sql()
                    .select(b("number"))
                    .from(B)
                    .where(
                            b("state").eq(DSL.inline("WAITING")),
                            b("target").eq(Sql.value()),
                            b("record").eq(Sql.value()),
                            b("kind").eq(Sql.value()))
                    .orderBy(b("event"))
                    .limit(DSL.inline(1));

    static final Statement ADD = EVENTS.insert(OF_EVENT);

    /** Events without a place in the order, as they were raised. */
    private static final TableStatements ARRIVING = new TableStatements("sandpiper_event_arriving");

    static final Statement ADD_ARRIVING = ARRIVING.insert(OF_EVENT);
    static final Statement ARE_ARRIVING =
            Sql.statement(Tables.sql().selectOne().from(ARRIVING.table()).limit(DSL.inline(1)));

    /** Each of them gets the next number, in the order of their own. */
    static final Statement ARRIVE = Statement.written(arrival());

    private static String arrival() {
        var columns = String.join(", ", OF_EVENT);
        return """
        with arrived as (
          delete from sandpiper_event_arriving
          where number in (select number from sandpiper_event_arriving order by number limit 500)
          returning number as place, %1$s)
        insert into sandpiper_event (%1$s)
        select %1$s from arrived order by place
        """
                .formatted(columns);
    }

    static final Statement AFTER =
            Sql.statement(
                    events(e("number").gt(Sql.value())).orderBy(e("number")).limit(Sql.count()));
    static final Statement LATEST =
            Sql.statement(
                    events(PUBLISHED, named(Sql.value()))
                            .orderBy(e("number").desc())
                            .limit(Sql.count()));
    static final Statement BY_NUMBER = Sql.statement(events(e("number").eq(Sql.value())));
    static final Statement BY_ID = Sql.statement(events(e("id").eq(Sql.value())));
    static final Statement NEWEST =
            Sql.statement(
                    Tables.sql()
                            .select(DSL.coalesce(DSL.max(Sql.number("number")), DSL.inline(0L)))
                            .from(EVENTS.table()));
    static final Statement POSITION = POSITIONS.selectBy("reader", "number");
    static final Statement BEGIN_POSITION =
            Sql.statement(
                    Tables.sql()
                            .insertInto(
                                    POSITIONS.table(), Sql.column("reader"), Sql.column("number"))
                            .values(Sql.value(), Sql.value())
                            .onConflictDoNothing());
    static final Statement CLAIM_POSITION =
            Sql.claim(POSITIONS.select("number").where(Sql.is("reader")));
    static final Statement PUT_POSITION = POSITIONS.put(List.of("reader"), "number");
    static final Statement ADD_DELIVERY = DELIVERIES.insert(OF_DELIVERY);
    static final Statement DUE =
            Sql.statement(
                    Tables.sql()
                            .select(DELIVERY)
                            .from(D)
                            .where(
                                    WAITING,
                                    d("kind").eq(Sql.value()),
                                    d("due").le(Sql.value()),
                                    FREE,
                                    DSL.not(BLOCKED))
                            .orderBy(d("due"), d("number"))
                            .limit(Sql.count()));

    static final Statement FOLLOWING =
            Sql.statement(
                    Tables.sql()
                            .select(DELIVERY)
                            .from(D)
                            .where(
                                    d("number").eq(DSL.field(FIRST_IN_LINE)),
                                    d("due").le(Sql.value()),
                                    FREE));
    static final Statement NEXT_DUE =
            Sql.statement(
                    Tables.sql()
                            .select(d("due"))
                            .from(D)
                            .where(WAITING, d("kind").eq(Sql.value()), DSL.not(BLOCKED))
                            .orderBy(d("due"))
                            .limit(DSL.inline(1)));
    static final Statement FIND_DELIVERY =
            Sql.statement(Tables.sql().select(DELIVERY).from(D).where(d("number").eq(Sql.value())));
    static final Statement CLAIM_DELIVERY =
            Sql.claim(
                    Tables.sql().select(DELIVERY).from(D).where(d("number").eq(Sql.value()), FREE));
    static final Statement HOLD = DELIVERIES.update(List.of("held_until"), Sql.is("number"));
    static final Statement UPDATE_DELIVERY =
            DELIVERIES.update(
                    List.of("state", "tries", "due", "done_at", "said", "trace", "held_until"),
                    Sql.is("number"));
    static final Statement WAITING_OF =
            Sql.statement(
                    delivered(
                                    WAITING,
                                    d("kind").eq(Sql.value()),
                                    d("target").eq(Sql.value()),
                                    e("unit").eq(Sql.value()))
                            .orderBy(e("number")));
    static final Statement COUNT =
            Sql.statement(
                    Tables.sql()
                            .select(DSL.count())
                            .from(DELIVERIES.table())
                            .where(Sql.is("state")));
    static final Statement FORGET_DONE =
            DELIVERIES.delete(
                    DSL.and(Sql.is("state", "DONE"), Sql.column("done_at").lt(Sql.value())));
    static final Statement FORGET_EVENTS =
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
    static final Statement FORGET_WAITING =
            DELIVERIES.delete(
                    DSL.and(Sql.is("state", "WAITING"), Sql.is("kind"), Sql.is("target")));
    static final Statement ADD_TRY = TRIES.insert(OF_TRY);
    static final Statement TRIES_OF =
            Sql.statement(
                    TRIES.select(OF_TRY)
                            .where(Sql.is("delivery"))
                            .orderBy(Sql.number("number").desc()));

    private EventSql() {}

    static Field<Object> e(String column) {
        return Sql.column("e", column);
    }

    static Field<Object> d(String column) {
        return Sql.column("d", column);
    }

    private static Field<Object> b(String column) {
        return Sql.column("b", column);
    }

    /** The number of a row and then the others of its columns. */
    private static List<Field<Object>> numbered(String of, String... columns) {
        return Stream.concat(Stream.of("number"), Stream.of(columns))
                .map(column -> Sql.column(of, column))
                .toList();
    }

    /** Events that meet conditions. */
    static SelectConditionStep<?> events(Condition... where) {
        return Tables.sql().select(EVENT).from(E).where(where);
    }

    /** Deliveries with their events that meet conditions. */
    static SelectConditionStep<?> delivered(Condition... where) {
        return Tables.sql()
                .select(EVENT)
                .select(DELIVERY)
                .from(D)
                .join(E)
                .on(e("number").eq(d("event")))
                .where(where);
    }

    /** That the name of an event or the key of its record has a text in it. */
    static Condition named(Field<?> wanted) {
        return Sql.contains(
                DSL.field("({0} || ' ' || coalesce({1}, ''))", String.class, e("name"), e("key")),
                wanted);
    }
}
