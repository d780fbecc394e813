package sandpiper.store.system;

import java.util.Optional;
import sandpiper.engine.port.ScheduleStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;

/** Progress of schedules in its table. */
public final class SqlSchedules implements ScheduleStorage {
    @Override
    public Optional<Progress> find(Session session, String name) {
        return SqlSession.of(session)
                .first(
                        "select name, ran_for, running, after from sandpiper_schedule where name ="
                                + " ?",
                        row -> {
                            var ranFor = TemporalType.instant(row.getLong(2));
                            long running = row.getLong(3);
                            boolean isRunning = !row.wasNull();
                            return new Progress(
                                    row.getString(1),
                                    ranFor,
                                    isRunning ? TemporalType.instant(running) : null,
                                    row.getLong(4));
                        },
                        name);
    }

    @Override
    public void put(Transaction transaction, Progress progress) {
        var running = progress.running();
        SqlSession.of(transaction)
                .run(
                        "insert or replace into sandpiper_schedule (name, ran_for, running, after)"
                                + " values (?, ?, ?, ?)",
                        progress.name(),
                        TemporalType.micros(progress.ranFor()),
                        running == null ? null : (Long) TemporalType.micros(running),
                        progress.after());
    }
}
