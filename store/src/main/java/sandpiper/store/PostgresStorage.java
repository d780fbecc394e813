package sandpiper.store;

import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.Function;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.Transaction;
import sandpiper.store.postgres.PostgresDatabase;
import sandpiper.store.postgres.PostgresSettings;
import sandpiper.store.postgres.ProcessRegister;
import sandpiper.store.record.SeriesBlocks;
import sandpiper.store.schema.SystemTables;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.system.ReleaseFence;
import sandpiper.store.system.Stamps;

/** Everything in one schema of a PostgreSQL database. */
public final class PostgresStorage extends SqlStorage {
    /** Others may be at it at the same moment. */
    private static final int PREPARED_AT_MOST = 5;

    private final PostgresDatabase database;
    private final ProcessRegister register;
    private final Clock clock;

    private PostgresStorage(PostgresDatabase database, ProcessRegister register, Clock clock) {
        super(clock, new SeriesBlocks(database::draw, database::glance));
        this.database = database;
        this.register = register;
        this.clock = clock;
    }

    /**
     * Opens a database, brings the service's tables in it up to date, and goes by its clock.
     *
     * @throws StorageException that says what is in the way
     */
    public static PostgresStorage open(PostgresSettings settings) {
        return open(settings, Clock.systemUTC(), ProcessRegister::clock);
    }

    /** The same going by another clock, whatever the database's says. */
    public static PostgresStorage open(PostgresSettings settings, Clock clock) {
        return open(settings, clock, _ -> clock);
    }

    private static PostgresStorage open(
            PostgresSettings settings, Clock own, Function<ProcessRegister, Clock> clock) {
        var database = PostgresDatabase.open(settings);
        try {
            prepare(database);
            var register = ProcessRegister.enter(database, SystemTables.newest(), own);
            return new PostgresStorage(database, register, clock.apply(register));
        } catch (RuntimeException e) {
            database.close();
            throw e;
        }
    }

    private static void prepare(PostgresDatabase database) {
        for (int tried = 1; ; tried++) {
            try (var session = database.write()) {
                int there = SystemTables.format(session);
                ProcessRegister.requireNoOther(session, there, SystemTables.newest());
                SystemTables.prepare(session);
                if (there != SystemTables.newest()) {
                    ReleaseFence.reformat(session, SystemTables.newest());
                }
                session.commit();
                return;
            } catch (StorageException e) {
                // What another has just made is told in many ways; the next look is another.
                if (tried == PREPARED_AT_MOST || !pause(e)) {
                    throw e;
                }
            }
        }
    }

    /** Tells whether it came to its end; it does not for what nobody else can have done. */
    private static boolean pause(StorageException e) {
        if (e.getCause() instanceof IllegalStateException) {
            return false;
        }
        try {
            Thread.sleep(ThreadLocalRandom.current().nextLong(50, 300));
            return true;
        } catch (InterruptedException _) {
            Thread.currentThread().interrupt();
            return false;
        }
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
    public Clock clock() {
        return clock;
    }

    @Override
    public List<Peer> peers(Session session) {
        return register.all(SqlSession.of(session));
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
                ReleaseFence.close(session, SystemTables.newest());
            } else {
                ReleaseFence.pass(session, SystemTables.newest());
            }
            return session;
        } catch (RuntimeException e) {
            session.close();
            throw e;
        }
    }

    /**
     * Begins to fill it with what one state of other data holds; nobody else writes to it
     * meanwhile, and nobody conflicts with what is read.
     */
    public Transaction beginCopy() {
        var session = database.copy();
        try {
            ReleaseFence.close(session, SystemTables.newest());
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
        register.close();
        database.close();
    }
}
