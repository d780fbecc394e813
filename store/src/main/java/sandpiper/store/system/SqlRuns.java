package sandpiper.store.system;

import java.util.ArrayList;
import java.util.List;
import org.jooq.Condition;
import org.jooq.impl.DSL;
import sandpiper.engine.port.RunStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.ColumnValues;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;

/** Runs of functions, handlers and schedules; the oldest go when there are too many. */
public final class SqlRuns implements RunStorage {
    private static final TableStatements TABLE = new TableStatements("sandpiper_run");
    private static final String[] COLUMNS = {
        "at", "kind", "name", "object", "key", "outcome", "said", "micros", "actor", "via", "trace"
    };
    private static final Statement ADD = TABLE.insertNumbered("number", COLUMNS);
    private static final Statement FORGET = TABLE.delete(Sql.is("number"));

    private static final int MOST_KEPT = 5_000;

    @Override
    public void add(Transaction transaction, Run run) {
        var sql = SqlSession.of(transaction);
        long number =
                sql.insert(
                        ADD,
                        TemporalType.micros(run.at()),
                        run.kind(),
                        run.name(),
                        run.object(),
                        run.key(),
                        run.done() ? "done" : "refused",
                        run.said(),
                        run.micros(),
                        run.by(),
                        run.via(),
                        run.trace() == null ? null : ColumnValues.bytes(run.trace()));
        sql.run(FORGET, number - MOST_KEPT);
    }

    @Override
    public List<Run> latest(Session session, RunFilter wanted) {
        var where = new ArrayList<Condition>();
        where.add(Sql.contains(Sql.column("name"), DSL.val(wanted.name())));
        where.add(Sql.contains(Sql.column("key"), DSL.val(wanted.key())));
        if (wanted.done() != null) {
            where.add(Sql.column("outcome").eq(wanted.done() ? "done" : "refused"));
        }
        return SqlSession.of(session)
                .list(
                        TABLE.select(COLUMNS)
                                .where(where)
                                .orderBy(Sql.number("number").desc())
                                .limit(wanted.limit()),
                        row -> {
                            var trace = row.getBytes(11);
                            return new Run(
                                    TemporalType.instant(row.getLong(1)),
                                    row.getString(2),
                                    row.getString(3),
                                    row.getString(4),
                                    row.getString(5),
                                    row.getString(6).equals("done"),
                                    row.getString(7),
                                    row.getLong(8),
                                    row.getString(9),
                                    row.getString(10),
                                    trace == null ? null : ColumnValues.uuid(trace));
                        });
    }
}
