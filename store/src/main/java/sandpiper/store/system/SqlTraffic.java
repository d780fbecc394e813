package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jooq.Field;
import org.jooq.impl.DSL;
import sandpiper.engine.call.Called;
import sandpiper.engine.call.FailedCall;
import sandpiper.engine.call.Use;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.TrafficStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import sandpiper.store.table.Tables;

/** Calls of services, added up by day, and the latest that failed. */
public final class SqlTraffic implements TrafficStorage {
    private static final TableStatements TABLE = new TableStatements("sandpiper_traffic");
    private static final TableStatements FAILED = new TableStatements("sandpiper_failed_request");
    private static final List<String> KEY =
            List.of(
                    "day",
                    "service",
                    "version",
                    "revision",
                    "resource",
                    "operation",
                    "protocol",
                    "caller");
    private static final List<String> COUNTED =
            List.of("calls", "errors", "micros", "slowest", "last");
    private static final Statement COUNT =
            Sql.statement(
                    Tables.sql()
                            .insertInto(
                                    TABLE.table(),
                                    Stream.concat(KEY.stream(), COUNTED.stream())
                                            .map(Sql::column)
                                            .toList())
                            .values(Collections.nCopies(KEY.size() + COUNTED.size(), Sql.value()))
                            .onConflict(KEY.stream().map(Sql::column).toList())
                            .doUpdate()
                            .set(added("calls"))
                            .set(added("errors"))
                            .set(added("micros"))
                            .set(larger("slowest"))
                            .set(larger("last")));
    private static final Statement FORGET = TABLE.delete(Sql.column("day").lt(Sql.value()));
    private static final Statement SINCE =
            Sql.statement(
                    TABLE.select(
                                    "service",
                                    "version",
                                    "revision",
                                    "resource",
                                    "operation",
                                    "protocol",
                                    "caller",
                                    "day",
                                    "calls",
                                    "errors",
                                    "micros",
                                    "slowest",
                                    "last")
                            .where(Sql.column("day").ge(Sql.value()))
                            .orderBy(Sql.column("day").desc(), Sql.column("calls").desc()));
    private static final Statement ADD_FAILED =
            FAILED.insert(
                    "at",
                    "service",
                    "version",
                    "resource",
                    "operation",
                    "protocol",
                    "caller",
                    "status",
                    "message",
                    "trace");
    private static final Statement KEEP_FAILED = FAILED.keepNewest();
    private static final Statement LATEST_FAILED =
            Sql.statement(
                    FAILED.select(
                                    "service",
                                    "version",
                                    "resource",
                                    "operation",
                                    "protocol",
                                    "caller",
                                    "at",
                                    "status",
                                    "message",
                                    "trace")
                            .orderBy(Sql.number("number").desc())
                            .limit(Sql.count()));

    private static Map<Field<Long>, Field<Long>> added(String column) {
        var field = Sql.number(column);
        return Map.of(field, TABLE.number(column).plus(DSL.excluded(field)));
    }

    /** The larger of what is there and what comes. */
    private static Map<Field<Long>, Field<Long>> larger(String column) {
        var field = Sql.number(column);
        return Map.of(field, DSL.greatest(TABLE.number(column), DSL.excluded(field)));
    }

    private static final int MOST_FAILED = 500;
    private static final int KEPT_DAYS = 400;

    @Override
    public void add(Transaction transaction, List<Use> uses) {
        var sql = SqlSession.of(transaction);
        for (var use : uses) {
            var called = use.called();
            sql.run(
                    COUNT,
                    use.day().toEpochDay(),
                    called.service(),
                    (long) called.version(),
                    (long) called.revision(),
                    called.resource(),
                    called.operation(),
                    called.protocol(),
                    called.caller(),
                    use.calls(),
                    use.errors(),
                    use.micros(),
                    use.slowest(),
                    TemporalType.micros(use.last()));
            sql.run(FORGET, use.day().toEpochDay() - KEPT_DAYS);
        }
    }

    @Override
    public List<Use> since(Session session, LocalDate day) {
        return SqlSession.of(session)
                .list(
                        SINCE,
                        row ->
                                new Use(
                                        LocalDate.ofEpochDay(row.getLong(8)),
                                        called(row, (int) row.getLong(3), 4),
                                        row.getLong(9),
                                        row.getLong(10),
                                        row.getLong(11),
                                        row.getLong(12),
                                        TemporalType.instant(row.getLong(13))),
                        day.toEpochDay());
    }

    /** What is called; {@code next} is the column of the resource, behind which the rest stands. */
    private static Called called(ResultSet row, int revision, int next) throws SQLException {
        return new Called(
                row.getString(1),
                (int) row.getLong(2),
                revision,
                row.getString(next),
                row.getString(next + 1),
                row.getString(next + 2),
                row.getString(next + 3));
    }

    @Override
    public void addFailed(Transaction transaction, List<FailedCall> failed) {
        var sql = SqlSession.of(transaction);
        for (var one : failed) {
            sql.run(
                    ADD_FAILED,
                    TemporalType.micros(one.at()),
                    one.called().service(),
                    (long) one.called().version(),
                    one.called().resource(),
                    one.called().operation(),
                    one.called().protocol(),
                    one.called().caller(),
                    (long) one.status(),
                    one.message(),
                    one.trace());
        }
        sql.run(KEEP_FAILED, (long) MOST_FAILED);
    }

    @Override
    public List<FailedCall> failed(Session session, int limit) {
        return SqlSession.of(session)
                .list(
                        LATEST_FAILED,
                        row ->
                                new FailedCall(
                                        TemporalType.instant(row.getLong(7)),
                                        called(row, 0, 3),
                                        (int) row.getLong(8),
                                        row.getString(9),
                                        row.getString(10)),
                        (long) limit);
    }
}
