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
import sandpiper.store.sql.Statement;
import sandpiper.store.table.ColumnValues;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import sandpiper.store.table.Tables;

/** Accounts of requests in their tables; the oldest go when there are too many. */
public final class SqlTraces implements TraceStorage {
    private static final TableStatements TABLE = new TableStatements("sandpiper_trace");
    private static final TableStatements STEPS = new TableStatements("sandpiper_trace_step");
    private static final String[] HEAD = {"id", "at", "actor", "via", "what", "outcome"};
    private static final Statement ADD = TABLE.insertNumbered("number", HEAD);
    private static final Statement ADD_STEP =
            STEPS.insert("trace", "number", "depth", "kind", "title", "detail", "result", "micros");
    private static final Statement FORGET = TABLE.delete(Sql.column("number").le(Sql.value()));
    private static final Statement LATEST =
            Sql.statement(
                    TABLE.select(HEAD).orderBy(Sql.number("number").desc()).limit(Sql.count()));
    private static final Statement FIND = TABLE.selectBy("id", HEAD);
    private static final Statement STEPS_OF =
            Sql.statement(
                    Tables.sql()
                            .select(
                                    Sql.column("s", "depth"),
                                    Sql.column("s", "kind"),
                                    Sql.column("s", "title"),
                                    Sql.column("s", "detail"),
                                    Sql.column("s", "result"),
                                    Sql.column("s", "micros"))
                            .from(STEPS.as("s"))
                            .join(TABLE.as("t"))
                            .on(Sql.column("t", "number").eq(Sql.column("s", "trace")))
                            .where(Sql.column("t", "id").eq(Sql.value()))
                            .orderBy(Sql.column("s", "number")));

    private static final int MOST_KEPT = 1_000;

    @Override
    public void put(Transaction transaction, Trace trace) {
        var sql = SqlSession.of(transaction);
        long number =
                sql.insert(
                        ADD,
                        ColumnValues.bytes(trace.id()),
                        TemporalType.micros(trace.at()),
                        trace.by(),
                        trace.via(),
                        trace.what(),
                        trace.outcome());
        for (int i = 0; i < trace.steps().size(); i++) {
            var step = trace.steps().get(i);
            sql.run(
                    ADD_STEP,
                    number,
                    i,
                    step.depth(),
                    step.kind().name(),
                    step.title(),
                    step.detail(),
                    step.result(),
                    step.micros());
        }
        sql.run(FORGET, number - MOST_KEPT);
    }

    @Override
    public List<Trace> latest(Session session, int limit) {
        return SqlSession.of(session).list(LATEST, SqlTraces::head, limit);
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
        return sql.first(FIND, SqlTraces::head, ColumnValues.bytes(id))
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
                STEPS_OF,
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
