package sandpiper.store.system;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.RunStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.table.ColumnValues;

/** Runs of functions, handlers and schedules; the oldest go when there are too many. */
public final class SqlRuns implements RunStorage {
    private static final int MOST_KEPT = 5_000;

    @Override
    public void add(Transaction transaction, Run run) {
        var sql = SqlSession.of(transaction);
        long number =
                sql.insert(
                        "insert into sandpiper_run (at, kind, name, object, key, outcome, said,"
                            + " micros, actor, via, trace) values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?,"
                            + " ?)",
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
        sql.run("delete from sandpiper_run where number = ?", number - MOST_KEPT);
    }

    @Override
    public List<Run> latest(Session session, RunFilter wanted) {
        var sql =
                new StringBuilder(
                        "select at, kind, name, object, key, outcome, said, micros, actor, via,"
                                + " trace from sandpiper_run where instr(lower(name), lower(?)) > 0"
                                + " and instr(lower(key), lower(?)) > 0");
        var values = new ArrayList<@Nullable Object>(List.of(wanted.name(), wanted.key()));
        if (wanted.done() != null) {
            sql.append(" and outcome = ?");
            values.add(wanted.done() ? "done" : "refused");
        }
        sql.append(" order by number desc limit ?");
        values.add((long) wanted.limit());
        return SqlSession.of(session)
                .list(
                        sql.toString(),
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
                        },
                        values.toArray());
    }
}
