package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.TraceStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.trace.Trace;
import sandpiper.engine.trace.TraceStep;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.table.ColumnValues;

/** Accounts of requests in their tables; the oldest go when there are too many. */
public final class SqlTraces implements TraceStorage {
    private static final int MOST_KEPT = 1_000;
    private static final String HEAD =
            "select id, at, actor, via, what, outcome from sandpiper_trace";

    @Override
    public void put(Transaction transaction, Trace trace) {
        var sql = SqlSession.of(transaction);
        long number =
                sql.insert(
                        "insert into sandpiper_trace (id, at, actor, via, what, outcome) values (?,"
                                + " ?, ?, ?, ?, ?)",
                        ColumnValues.bytes(trace.id()),
                        TemporalType.micros(trace.at()),
                        trace.by(),
                        trace.via(),
                        trace.what(),
                        trace.outcome());
        for (int i = 0; i < trace.steps().size(); i++) {
            var step = trace.steps().get(i);
            sql.run(
                    "insert into sandpiper_trace_step (trace, number, depth, kind, title, detail,"
                            + " result, micros) values (?, ?, ?, ?, ?, ?, ?, ?)",
                    number,
                    i,
                    step.depth(),
                    step.kind().name(),
                    step.title(),
                    step.detail(),
                    step.result(),
                    step.micros());
        }
        sql.run("delete from sandpiper_trace where number <= ?", number - MOST_KEPT);
    }

    @Override
    public List<Trace> latest(Session session, int limit) {
        return SqlSession.of(session)
                .list(HEAD + " order by number desc limit ?", SqlTraces::head, limit);
    }

    private static Trace head(ResultSet row) throws SQLException {
        return new Trace(
                ColumnValues.uuid(row.getBytes(1)),
                TemporalType.instant(row.getLong(2)),
                row.getString(3),
                row.getString(4),
                row.getString(5),
                row.getString(6),
                List.of());
    }

    @Override
    public Optional<Trace> find(Session session, UUID id) {
        var sql = SqlSession.of(session);
        return sql.first(HEAD + " where id = ?", SqlTraces::head, ColumnValues.bytes(id))
                .map(head ->
                        new Trace(
                                head.id(),
                                head.at(),
                                head.by(),
                                head.via(),
                                head.what(),
                                head.outcome(),
                                steps(sql, id)));
    }

    private static List<TraceStep> steps(SqlSession sql, UUID id) {
        return sql.list(
                "select s.depth, s.kind, s.title, s.detail, s.result, s.micros from"
                        + " sandpiper_trace_step s join sandpiper_trace t on t.number = s.trace"
                        + " where t.id = ? order by s.number",
                row ->
                        new TraceStep(
                                row.getInt(1),
                                TraceStep.Kind.valueOf(row.getString(2)),
                                row.getString(3),
                                row.getString(4),
                                row.getString(5),
                                row.getLong(6)),
                ColumnValues.bytes(id));
    }
}
