package sandpiper.bench.control;

import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.name;
import static org.jooq.impl.DSL.table;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.locks.ReentrantLock;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Repository;

/** Stays with their charges in tables of their own. */
@Repository
public class StayRepository {
    private static final Table<Record> STAY = table(name("stay"));
    private static final Table<Record> CHARGE = table(name("charge"));
    private static final Table<Record> VESSEL = table(name("vessel"));
    private static final Table<Record> BERTH = table(name("berth"));
    private static final Table<Record> TARIFF = table(name("tariff"));
    private static final Table<Record> HISTORY = table(name("history"));

    private final DSLContext sql;

    // SQLite takes one writer at a time; waiting here is cheaper than its busy handler.
    private final ReentrantLock writing = new ReentrantLock(true);

    StayRepository(DSLContext sql) {
        this.sql = sql;
        for (var statement : TABLES) {
            sql.execute(statement);
        }
    }

    private static final List<String> TABLES =
            List.of(
                    "create table if not exists owner (id integer primary key, code text unique,"
                            + " name text)",
                    "create table if not exists vessel (id integer primary key, registration text"
                            + " unique, name text, owner integer references owner)",
                    "create table if not exists pier (id integer primary key, code text unique)",
                    "create table if not exists berth (id integer primary key, code text unique,"
                            + " pier integer references pier)",
                    "create table if not exists tariff (id integer primary key, code text unique)",
                    "create table if not exists stay (id integer primary key, number text unique,"
                            + " version integer, vessel integer references vessel, berth integer"
                            + " references berth, state text, arrival integer, departure integer,"
                            + " remarks text, created_at integer, created_by text)",
                    "create index if not exists stay_vessel on stay (vessel)",
                    "create index if not exists stay_berth on stay (berth)",
                    "create index if not exists stay_state on stay (state)",
                    "create index if not exists stay_arrival on stay (arrival)",
                    "create index if not exists stay_departure on stay (departure)",
                    "create table if not exists charge (stay integer references stay on delete"
                            + " cascade, line integer, tariff integer references tariff, quantity"
                            + " integer, primary key (stay, line)) without rowid",
                    "create index if not exists charge_tariff on charge (tariff)",
                    "create table if not exists history (id integer primary key, stay integer, at"
                            + " integer, actor text, changes text)",
                    "create index if not exists history_stay on history (stay)");

    private static <T> Field<T> of(String table, String column, Class<T> type) {
        return field(name(table, column), type);
    }

    /** A stay as it comes in and goes out. */
    public record Stay(
            @Nullable String number,
            String vessel,
            @Nullable String vesselName,
            @Nullable String ownerName,
            String berth,
            @Nullable String state,
            LocalDate arrival,
            LocalDate departure,
            @Nullable List<Charge> charges) {}

    /** One charge. */
    public record Charge(String tariff, BigDecimal quantity) {}

    /** Loads what stays refer to. */
    public void load(List<String[]> vessels, List<String[]> berths, List<String> tariffs) {
        sql.transaction(inner -> {
            var in = inner.dsl();
            for (var vessel : vessels) {
                in.execute(
                        "insert or ignore into owner (code, name) values (?, ?)",
                        vessel[2],
                        vessel[3]);
                in.execute(
                        "insert into vessel (registration, name, owner) select ?, ?, id from owner"
                                + " where code = ?",
                        vessel[0],
                        vessel[1],
                        vessel[2]);
            }
            for (var berth : berths) {
                in.execute("insert or ignore into pier (code) values (?)", berth[1]);
                in.execute(
                        "insert into berth (code, pier) select ?, id from pier where code = ?",
                        berth[0],
                        berth[1]);
            }
            for (var tariff : tariffs) {
                in.execute("insert into tariff (code) values (?)", tariff);
            }
        });
    }

    String create(Stay stay, String actor) {
        writing.lock();
        try {
            return sql.transactionResult(inner -> create(inner.dsl(), stay, actor));
        } finally {
            writing.unlock();
        }
    }

    private static String create(DSLContext in, Stay stay, String actor) {
        long vessel = id(in, VESSEL, "vessel", "registration", stay.vessel());
        long berth = id(in, BERTH, "berth", "code", stay.berth());
        long last =
                java.util.Objects.requireNonNullElse(
                        in.select(DSL.max(of("stay", "id", Long.class)))
                                .from(STAY)
                                .fetchOne(0, Long.class),
                        0L);
        var number = "ST-2026-%06d".formatted(last + 1);
        long now = Instant.now().toEpochMilli();
        in.insertInto(STAY)
                .columns(
                        field(name("id")),
                        field(name("number")),
                        field(name("version")),
                        field(name("vessel")),
                        field(name("berth")),
                        field(name("state")),
                        field(name("arrival")),
                        field(name("departure")),
                        field(name("created_at")),
                        field(name("created_by")))
                .values(
                        last + 1,
                        number,
                        1,
                        vessel,
                        berth,
                        "Requested",
                        stay.arrival().toEpochDay(),
                        stay.departure().toEpochDay(),
                        now,
                        actor)
                .execute();
        var charges = stay.charges() == null ? List.<Charge>of() : stay.charges();
        var rows = new ArrayList<org.jooq.Query>();
        for (int i = 0; i < charges.size(); i++) {
            var charge = charges.get(i);
            rows.add(
                    in.insertInto(CHARGE)
                            .columns(
                                    field(name("stay")),
                                    field(name("line")),
                                    field(name("tariff")),
                                    field(name("quantity")))
                            .values(
                                    last + 1,
                                    i + 1,
                                    id(in, TARIFF, "tariff", "code", charge.tariff()),
                                    charge.quantity().movePointRight(2).longValueExact()));
        }
        in.batch(rows).execute();
        in.insertInto(HISTORY)
                .columns(
                        field(name("stay")),
                        field(name("at")),
                        field(name("actor")),
                        field(name("changes")))
                .values(last + 1, now, actor, stay.toString())
                .execute();
        return number;
    }

    private static long id(
            DSLContext in, Table<Record> from, String alias, String column, String key) {
        var found =
                in.select(of(alias, "id", Long.class))
                        .from(from)
                        .where(of(alias, column, String.class).eq(key))
                        .fetchOne(0, Long.class);
        if (found == null) {
            throw new IllegalArgumentException("There is no %s %s.".formatted(alias, key));
        }
        return found;
    }

    @Nullable Stay read(String number) {
        var row =
                sql.select(
                                of("stay", "id", Long.class),
                                of("stay", "state", String.class),
                                of("stay", "arrival", Long.class),
                                of("stay", "departure", Long.class),
                                of("vessel", "registration", String.class),
                                of("vessel", "name", String.class),
                                of("owner", "name", String.class),
                                of("berth", "code", String.class))
                        .from(STAY)
                        .join(VESSEL)
                        .on(of("stay", "vessel", Long.class).eq(of("vessel", "id", Long.class)))
                        .join(table(name("owner")))
                        .on(of("vessel", "owner", Long.class).eq(of("owner", "id", Long.class)))
                        .join(BERTH)
                        .on(of("stay", "berth", Long.class).eq(of("berth", "id", Long.class)))
                        .where(of("stay", "number", String.class).eq(number))
                        .fetchOne();
        if (row == null) {
            return null;
        }
        var charges =
                sql.select(of("tariff", "code", String.class), of("charge", "quantity", Long.class))
                        .from(CHARGE)
                        .join(TARIFF)
                        .on(of("charge", "tariff", Long.class).eq(of("tariff", "id", Long.class)))
                        .where(of("charge", "stay", Long.class).eq(row.value1()))
                        .orderBy(of("charge", "line", Long.class))
                        .fetch(charge ->
                                new Charge(
                                        charge.value1(), BigDecimal.valueOf(charge.value2(), 2)));
        return new Stay(
                number,
                row.value5(),
                row.value6(),
                row.value7(),
                row.value8(),
                row.value2(),
                LocalDate.ofEpochDay(row.value3()),
                LocalDate.ofEpochDay(row.value4()),
                charges);
    }

    List<Stay> query(String state, String pier, int limit) {
        return sql.select(
                        of("stay", "number", String.class),
                        of("stay", "state", String.class),
                        of("stay", "arrival", Long.class),
                        of("stay", "departure", Long.class),
                        of("vessel", "registration", String.class),
                        of("vessel", "name", String.class),
                        of("berth", "code", String.class))
                .from(STAY)
                .join(VESSEL)
                .on(of("stay", "vessel", Long.class).eq(of("vessel", "id", Long.class)))
                .join(BERTH)
                .on(of("stay", "berth", Long.class).eq(of("berth", "id", Long.class)))
                .join(table(name("pier")))
                .on(of("berth", "pier", Long.class).eq(of("pier", "id", Long.class)))
                .where(
                        of("stay", "state", String.class)
                                .eq(state)
                                .and(of("pier", "code", String.class).eq(pier)))
                .orderBy(of("stay", "id", Long.class))
                .limit(limit)
                .fetch(row ->
                        new Stay(
                                row.value1(),
                                row.value5(),
                                row.value6(),
                                null,
                                row.value7(),
                                row.value2(),
                                LocalDate.ofEpochDay(row.value3()),
                                LocalDate.ofEpochDay(row.value4()),
                                null));
    }
}
