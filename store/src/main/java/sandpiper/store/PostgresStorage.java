package sandpiper.store;

import java.nio.file.Path;
import java.time.Clock;
import java.util.Map;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.Transaction;
import sandpiper.store.postgres.PostgresDatabase;
import sandpiper.store.postgres.PostgresSettings;
import sandpiper.store.record.SeriesBlocks;
import sandpiper.store.schema.SystemTables;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.system.ReleaseFence;
import sandpiper.store.system.Stamps;

/** Everything in one schema of a PostgreSQL database. */
public final class PostgresStorage extends SqlStorage {
    private final PostgresDatabase database;

    private PostgresStorage(PostgresDatabase database, Clock clock) {
        super(clock, new SeriesBlocks(database::draw));
        this.database = database;
    }

    /**
     * Opens a database, and brings the service's tables in it up to date.
     *
     * @throws StorageException that says what is in the way
     */
    public static PostgresStorage open(PostgresSettings settings, Clock clock) {
        var database = PostgresDatabase.open(settings);
        try (var session = database.write()) {
            SystemTables.prepare(session);
            session.commit();
        } catch (RuntimeException e) {
            database.close();
            throw e;
        }
        return new PostgresStorage(database, clock);
    }

    @Override
    public Session snapshot() {
        return database.read();
    }

    @Override
    public String storedIn() {
        return database.version();
    }

    @Override
    public int writers() {
        return database.writers();
    }

    @Override
    public Transaction begin(boolean reshaping) {
        var session = database.write();
        try {
            if (reshaping) {
                ReleaseFence.close(session);
            } else {
                ReleaseFence.pass(session);
            }
            return session;
        } catch (RuntimeException e) {
            session.close();
            throw e;
        }
    }

    @Override
    public Map<Shared, Long> stamps(Session session) {
        return Stamps.all(SqlSession.of(session));
    }

    @Override
    public int release(Transaction transaction) {
        return SqlSession.of(transaction).release();
    }

    @Override
    public void backUp(Path to) {
        var words =
                "The data is in a database that has its own tools for backups: use pg_dump, or what"
                        + " whoever runs it uses.";
        throw new StorageException(words, new UnsupportedOperationException(words));
    }

    @Override
    public void close() {
        database.close();
    }
}
