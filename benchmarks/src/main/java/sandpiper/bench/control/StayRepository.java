package sandpiper.bench.control;

import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.name;
import static org.jooq.impl.DSL.table;

import com.fasterxml.uuid.Generators;
import com.fasterxml.uuid.NoArgGenerator;
import java.math.BigDecimal;
import java.nio.ByteBuffer;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Semaphore;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Query;
import org.jooq.Record;
import org.jooq.SQLDialect;
import org.jooq.Table;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Stores new stays with their charges, history and outbox. */
@Repository
class StayRepository {
    private static final Table<Record> STAY = table(name("stay"));
    private static final Table<Record> CHARGE = table(name("charge"));
    private static final NoArgGenerator IDS = Generators.timeBasedEpochGenerator();

    private final DSLContext sql;
    private final JsonMapper json;

    /** SQLite takes one writer at a time; waiting here is cheaper than its busy handler. */
    private final Semaphore writing;

    StayRepository(DSLContext sql, JsonMapper json) {
        this.sql = sql;
        this.json = json;
        boolean postgres = sql.dialect() == SQLDialect.POSTGRES;
        this.writing = new Semaphore(postgres ? Integer.MAX_VALUE : 1, true);
        (postgres ? Tables.forPostgres() : Tables.STATEMENTS).forEach(sql::execute);
    }

    String create(NewStay asked, String actor) {
        // What it refers to is read, and the rules are run, before the one writer is held.
        var draft = new StayDraft(asked, new References(sql));
        writing.acquireUninterruptibly();
        try {
            return sql.transactionResult(inner -> store(inner.dsl(), draft, actor));
        } finally {
            writing.release();
        }
    }

    private String store(DSLContext in, StayDraft draft, String actor) {
        long count =
                in.fetchOne(
                                "insert into series (name, last) values ('2026', 1) on conflict"
                                    + " (name) do update set last = series.last + 1 returning last")
                        .get(0, Long.class);
        var number = "ST-2026-%06d".formatted(count);
        long now = Instant.now().toEpochMilli();
        var id = IDS.generate();
        var publicId =
                ByteBuffer.allocate(16)
                        .putLong(id.getMostSignificantBits())
                        .putLong(id.getLeastSignificantBits())
                        .array();
        long stay =
                in.insertInto(STAY)
                        .columns(STAY_COLUMNS)
                        .values(
                                List.of(
                                        number,
                                        publicId,
                                        1L,
                                        draft.vessel.id(),
                                        draft.berth.id(),
                                        "Requested",
                                        draft.arrival.toEpochDay(),
                                        draft.departure.toEpochDay(),
                                        draft.nights,
                                        cents(draft.berth.nightlyRate()),
                                        draft.approvalRequired,
                                        draft.remarks == null ? "" : draft.remarks,
                                        cents(draft.net),
                                        cents(draft.gross.subtract(draft.net)),
                                        cents(draft.gross),
                                        now,
                                        actor,
                                        now,
                                        actor))
                        .returningResult(field(name("id"), Long.class))
                        .fetchOne()
                        .value1();
        storeCharges(in, stay, draft.lines);
        in.insertInto(table(name("history")))
                .columns(column("stay"), column("at"), column("actor"), column("changes"))
                .values(stay, now, actor, json.writeValueAsString(changes(number, draft)))
                .execute();
        in.insertInto(table(name("outbox")))
                .columns(column("at"), column("name"), column("stay"), column("data"))
                .values(
                        now,
                        "Stay.created",
                        stay,
                        json.writeValueAsString(Map.of("key", number, "version", 1)))
                .execute();
        return number;
    }

    private static void storeCharges(DSLContext in, long stay, List<StayDraft.Line> lines) {
        var rows = new ArrayList<Query>();
        for (int i = 0; i < lines.size(); i++) {
            var line = lines.get(i);
            rows.add(
                    in.insertInto(CHARGE)
                            .columns(CHARGE_COLUMNS)
                            .values(
                                    List.of(
                                            stay,
                                            i + 1,
                                            line.tariff().id(),
                                            cents(line.quantity()),
                                            cents(line.tariff().unitPrice()),
                                            line.tariff().vat().longValue(),
                                            cents(line.net()),
                                            cents(line.gross()))));
        }
        in.batch(rows).execute();
    }

    private static Map<String, @Nullable Object> changes(String number, StayDraft draft) {
        var changes = new LinkedHashMap<String, @Nullable Object>();
        changes.put("number", number);
        changes.put("vessel", draft.vessel.name());
        changes.put("berth", draft.berth.code());
        changes.put("arrival", draft.arrival.toString());
        changes.put("departure", draft.departure.toString());
        changes.put("nightlyRate", draft.berth.nightlyRate());
        changes.put("approvalRequired", draft.approvalRequired);
        changes.put(
                "charges",
                draft.lines.stream()
                        .map(line -> Map.of(line.tariff().code(), line.quantity()))
                        .toList());
        return changes;
    }

    private static long cents(BigDecimal value) {
        return value.movePointRight(2).longValueExact();
    }

    private static Field<Object> column(String column) {
        return field(name(column));
    }

    private static List<Field<Object>> columns(String... names) {
        return java.util.Arrays.stream(names).map(StayRepository::column).toList();
    }

    private static final List<Field<Object>> STAY_COLUMNS =
            columns(
                    "number",
                    "public_id",
                    "version",
                    "vessel",
                    "berth",
                    "state",
                    "arrival",
                    "departure",
                    "nights",
                    "nightly_rate",
                    "approval_required",
                    "remarks",
                    "net_total",
                    "vat_total",
                    "gross_total",
                    "created_at",
                    "created_by",
                    "changed_at",
                    "changed_by");
    private static final List<Field<Object>> CHARGE_COLUMNS =
            columns("stay", "line", "tariff", "quantity", "unit_price", "vat", "net", "gross");
}
