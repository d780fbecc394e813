package sandpiper.bench.control;

import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.name;
import static org.jooq.impl.DSL.table;

import java.math.BigDecimal;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jspecify.annotations.Nullable;

/** What a stay refers to, read by its key. */
record References(DSLContext sql) {
    /** A vessel; lengths in centimetres. */
    record Vessel(long id, String name, String kind, long length, long draught, long shorePower) {}

    /** A berth; lengths in centimetres. */
    record Berth(
            long id,
            String code,
            long maxLength,
            long maxDraught,
            boolean powered,
            BigDecimal nightlyRate,
            boolean open) {}

    /** A tariff; its tax in percent. */
    record Tariff(
            long id, String code, BigDecimal unitPrice, BigDecimal vat, boolean oncePerStay) {}

    private static <T> Field<T> of(String table, String column, Class<T> type) {
        return field(name(table, column), type);
    }

    Vessel vessel(String registration) {
        return found(
                sql.select(
                                of("vessel", "id", Long.class),
                                of("vessel", "name", String.class),
                                of("vessel", "kind", String.class),
                                of("vessel", "length", Long.class),
                                of("vessel", "draught", Long.class),
                                of("vessel", "shore_power", Long.class))
                        .from(table(name("vessel")))
                        .where(of("vessel", "registration", String.class).eq(registration))
                        .fetchOne(row ->
                                new Vessel(
                                        row.value1(),
                                        row.value2(),
                                        row.value3(),
                                        row.value4(),
                                        row.value5(),
                                        row.value6())),
                "vessel",
                registration);
    }

    Berth berth(String code) {
        return found(
                sql.select(
                                of("berth", "id", Long.class),
                                of("berth", "max_length", Long.class),
                                of("berth", "max_draught", Long.class),
                                of("berth", "powered", Boolean.class),
                                of("berth", "nightly_rate", Long.class),
                                of("pier", "open", Boolean.class))
                        .from(table(name("berth")))
                        .join(table(name("pier")))
                        .on(of("berth", "pier", Long.class).eq(of("pier", "id", Long.class)))
                        .where(of("berth", "code", String.class).eq(code))
                        .fetchOne(row ->
                                new Berth(
                                        row.value1(),
                                        code,
                                        row.value2(),
                                        row.value3(),
                                        row.value4(),
                                        BigDecimal.valueOf(row.value5(), 2),
                                        row.value6())),
                "berth",
                code);
    }

    Tariff tariff(String code) {
        return found(
                sql.select(
                                of("tariff", "id", Long.class),
                                of("tariff", "unit_price", Long.class),
                                of("tariff", "vat", Long.class),
                                of("tariff", "once_per_stay", Boolean.class))
                        .from(table(name("tariff")))
                        .where(of("tariff", "code", String.class).eq(code))
                        .fetchOne(row ->
                                new Tariff(
                                        row.value1(),
                                        code,
                                        BigDecimal.valueOf(row.value2(), 2),
                                        BigDecimal.valueOf(row.value3()),
                                        row.value4())),
                "tariff",
                code);
    }

    private static <T> T found(@Nullable T there, String what, String key) {
        if (there == null) {
            throw new RefusedException("There is no %s %s.".formatted(what, key));
        }
        return there;
    }
}
