package sandpiper.bench.control;

import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.name;
import static org.jooq.impl.DSL.table;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Table;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Repository;

/** Reads stays. */
@Repository
class StayQueries {
    private static final Table<Record> STAY = table(name("stay"));
    private static final Table<Record> VESSEL = table(name("vessel"));
    private static final Table<Record> OWNER = table(name("owner"));
    private static final Table<Record> BERTH = table(name("berth"));
    private static final Table<Record> PIER = table(name("pier"));

    private final DSLContext sql;

    StayQueries(DSLContext sql) {
        this.sql = sql;
    }

    private static <T> Field<T> of(String table, String column, Class<T> type) {
        return field(name(table, column), type);
    }

    @Nullable Stay read(String number) {
        var row =
                sql.select(
                                of("stay", "id", Long.class),
                                of("stay", "version", Long.class),
                                of("stay", "state", String.class),
                                of("stay", "arrival", Long.class),
                                of("stay", "departure", Long.class),
                                of("stay", "nights", Long.class),
                                of("stay", "nightly_rate", Long.class),
                                of("stay", "approval_required", Boolean.class),
                                of("stay", "remarks", String.class),
                                of("stay", "net_total", Long.class),
                                of("stay", "vat_total", Long.class),
                                of("stay", "gross_total", Long.class),
                                of("vessel", "registration", String.class),
                                of("vessel", "name", String.class),
                                of("owner", "name", String.class),
                                of("berth", "code", String.class),
                                of("pier", "code", String.class))
                        .from(STAY)
                        .join(VESSEL)
                        .on(of("stay", "vessel", Long.class).eq(of("vessel", "id", Long.class)))
                        .join(OWNER)
                        .on(of("vessel", "owner", Long.class).eq(of("owner", "id", Long.class)))
                        .join(BERTH)
                        .on(of("stay", "berth", Long.class).eq(of("berth", "id", Long.class)))
                        .join(PIER)
                        .on(of("berth", "pier", Long.class).eq(of("pier", "id", Long.class)))
                        .where(of("stay", "number", String.class).eq(number))
                        .fetchOne();
        if (row == null) {
            return null;
        }
        return new Stay(
                number,
                row.value2(),
                row.value13(),
                row.value14(),
                row.value15(),
                row.value16(),
                row.value17(),
                row.value3(),
                LocalDate.ofEpochDay(row.value4()),
                LocalDate.ofEpochDay(row.value5()),
                row.value6(),
                cents(row.value7()),
                row.value8(),
                row.value9(),
                cents(row.value10()),
                cents(row.value11()),
                cents(row.value12()),
                charges(row.value1()));
    }

    private List<Stay.Charge> charges(long stay) {
        return sql.select(
                        of("tariff", "code", String.class),
                        of("charge", "quantity", Long.class),
                        of("charge", "unit_price", Long.class),
                        of("charge", "vat", Long.class),
                        of("charge", "net", Long.class),
                        of("charge", "gross", Long.class))
                .from(table(name("charge")))
                .join(table(name("tariff")))
                .on(of("charge", "tariff", Long.class).eq(of("tariff", "id", Long.class)))
                .where(of("charge", "stay", Long.class).eq(stay))
                .orderBy(of("charge", "line", Long.class))
                .fetch(charge ->
                        new Stay.Charge(
                                charge.value1(),
                                cents(charge.value2()),
                                cents(charge.value3()),
                                BigDecimal.valueOf(charge.value4()),
                                cents(charge.value5()),
                                cents(charge.value6())));
    }

    List<Stay.Line> query(String state, String pier, int limit) {
        return sql.select(
                        of("stay", "number", String.class),
                        of("stay", "state", String.class),
                        of("stay", "arrival", Long.class),
                        of("stay", "departure", Long.class),
                        of("vessel", "name", String.class),
                        of("berth", "code", String.class))
                .from(STAY)
                .join(VESSEL)
                .on(of("stay", "vessel", Long.class).eq(of("vessel", "id", Long.class)))
                .join(BERTH)
                .on(of("stay", "berth", Long.class).eq(of("berth", "id", Long.class)))
                .join(PIER)
                .on(of("berth", "pier", Long.class).eq(of("pier", "id", Long.class)))
                .where(
                        of("stay", "state", String.class)
                                .eq(state)
                                .and(of("pier", "code", String.class).eq(pier)))
                .orderBy(of("stay", "id", Long.class))
                .limit(limit)
                .fetch(row ->
                        new Stay.Line(
                                row.value1(),
                                row.value2(),
                                LocalDate.ofEpochDay(row.value3()),
                                LocalDate.ofEpochDay(row.value4()),
                                row.value5(),
                                row.value6()));
    }

    private static BigDecimal cents(long value) {
        return BigDecimal.valueOf(value, 2);
    }
}
