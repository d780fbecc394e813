package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import sandpiper.engine.port.ScheduleStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;

/** Progress of schedules in its table. */
public final class SqlSchedules implements ScheduleStorage {
    private static final TableStatements TABLE = new TableStatements("sandpiper_schedule");
    private static final Statement FIND =
            TABLE.selectBy("name", "name", "ran_for", "running", "after");
    private static final Statement CLAIM =
            Sql.claim(TABLE.select("name", "ran_for", "running", "after").where(Sql.is("name")));
    private static final Statement PUT = TABLE.put(List.of("name"), "ran_for", "running", "after");

    @Override
    public Optional<Progress> find(Session session, String name) {
        return SqlSession.of(session).first(FIND, SqlSchedules::read, name);
    }

    private static Progress read(ResultSet row) throws SQLException {
        var ranFor = TemporalType.instant(row.getLong(2));
        long running = row.getLong(3);
        boolean isRunning = !row.wasNull();
        return new Progress(
                row.getString(1),
                ranFor,
                isRunning ? TemporalType.instant(running) : null,
                row.getLong(4));
    }

    @Override
    public Optional<Progress> claim(Transaction transaction, String name) {
        return SqlSession.of(transaction).first(CLAIM, SqlSchedules::read, name);
    }

    @Override
    public void put(Transaction transaction, Progress progress) {
        var running = progress.running();
        SqlSession.of(transaction)
                .run(
                        PUT,
                        progress.name(),
                        TemporalType.micros(progress.ranFor()),
                        running == null ? null : (Long) TemporalType.micros(running),
                        progress.after());
    }
}
