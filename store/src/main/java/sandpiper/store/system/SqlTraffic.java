package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.List;
import sandpiper.engine.call.Called;
import sandpiper.engine.call.FailedCall;
import sandpiper.engine.call.Use;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.TrafficStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;

/** Calls of services, added up by day, and the latest that failed. */
public final class SqlTraffic implements TrafficStorage {
    private static final int MOST_FAILED = 500;
    private static final int KEPT_DAYS = 400;

    @Override
    public void add(Transaction transaction, List<Use> uses) {
        var sql = SqlSession.of(transaction);
        for (var use : uses) {
            var called = use.called();
            sql.run(
                    "insert into sandpiper_traffic (day, service, version, resource, operation,"
                            + " protocol, caller, calls, errors, micros, slowest, last) values (?,"
                            + " ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) on conflict do update set calls ="
                            + " calls + excluded.calls, errors = errors + excluded.errors, micros ="
                            + " micros + excluded.micros, slowest = max(slowest,"
                            + " excluded.slowest), last = max(last, excluded.last)",
                    use.day().toEpochDay(),
                    called.service(),
                    (long) called.version(),
                    called.resource(),
                    called.operation(),
                    called.protocol(),
                    called.caller(),
                    use.calls(),
                    use.errors(),
                    use.micros(),
                    use.slowest(),
                    TemporalType.micros(use.last()));
            sql.run(
                    "delete from sandpiper_traffic where day < ?",
                    use.day().toEpochDay() - KEPT_DAYS);
        }
    }

    @Override
    public List<Use> since(Session session, LocalDate day) {
        return SqlSession.of(session)
                .list(
                        "select service, version, resource, operation, protocol, caller, day,"
                                + " calls, errors, micros, slowest, last from sandpiper_traffic"
                                + " where day >= ? order by day desc, calls desc",
                        row ->
                                new Use(
                                        LocalDate.ofEpochDay(row.getLong(7)),
                                        called(row),
                                        row.getLong(8),
                                        row.getLong(9),
                                        row.getLong(10),
                                        row.getLong(11),
                                        TemporalType.instant(row.getLong(12))),
                        day.toEpochDay());
    }

    private static Called called(ResultSet row) throws SQLException {
        return new Called(
                row.getString(1),
                (int) row.getLong(2),
                row.getString(3),
                row.getString(4),
                row.getString(5),
                row.getString(6));
    }

    @Override
    public void addFailed(Transaction transaction, List<FailedCall> failed) {
        var sql = SqlSession.of(transaction);
        for (var one : failed) {
            sql.run(
                    "insert into sandpiper_failed_request (at, service, version, resource,"
                            + " operation, protocol, caller, status, message, trace) values (?, ?,"
                            + " ?, ?, ?, ?, ?, ?, ?, ?)",
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
        sql.run(
                "delete from sandpiper_failed_request where number <= (select max(number) from"
                        + " sandpiper_failed_request) - ?",
                (long) MOST_FAILED);
    }

    @Override
    public List<FailedCall> failed(Session session, int limit) {
        return SqlSession.of(session)
                .list(
                        "select service, version, resource, operation, protocol, caller, at,"
                                + " status, message, trace from sandpiper_failed_request order by"
                                + " number desc limit ?",
                        row ->
                                new FailedCall(
                                        TemporalType.instant(row.getLong(7)),
                                        called(row),
                                        (int) row.getLong(8),
                                        row.getString(9),
                                        row.getString(10)),
                        (long) limit);
    }
}
