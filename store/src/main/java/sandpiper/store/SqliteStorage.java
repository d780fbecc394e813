package sandpiper.store;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.store.record.StoredSeries;
import sandpiper.store.schema.SystemTables;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sqlite.FileHold;
import sandpiper.store.sqlite.FileModes;
import sandpiper.store.sqlite.SqliteDatabase;

/** Everything in one SQLite file. */
public final class SqliteStorage extends SqlStorage {
    private final SqliteDatabase database;
    private @Nullable Path temporary;
    private final @Nullable FileHold hold;
    private final Clock clock;
    private final Peer own;

    private SqliteStorage(SqliteDatabase database, @Nullable FileHold hold, Clock clock) {
        super(clock, new StoredSeries());
        this.hold = hold;
        this.database = database;
        this.clock = clock;
        this.own = new Peer("process " + ProcessHandle.current().pid(), clock.instant(), true);
    }

    /**
     * Opens a file, makes it and its folder when they are not there, and brings an older one up to
     * date.
     */
    public static SqliteStorage open(Path file, Clock clock) {
        return open(file, clock, SqliteDatabase.USUAL_LONGEST_READ);
    }

    /**
     * The same.
     *
     * @param longestRead how long a read may take before it is stopped
     */
    public static SqliteStorage open(Path file, Clock clock, Duration longestRead) {
        FileModes.makeFolder(Objects.requireNonNull(file.toAbsolutePath().getParent()));
        FileModes.make(file);
        FileModes.restrict(Path.of(file + "-wal"));
        FileModes.restrict(Path.of(file + "-shm"));
        return opened(file, FileHold.take(file), clock, longestRead);
    }

    private static SqliteStorage opened(
            Path file, @Nullable FileHold hold, Clock clock, Duration longestRead) {
        try {
            var database = SqliteDatabase.open(file, longestRead);
            try (SqlSession session = database.write()) {
                SystemTables.prepare(session);
                session.commit();
            }
            return new SqliteStorage(database, hold, clock);
        } catch (RuntimeException e) {
            if (hold != null) {
                hold.close();
            }
            throw e;
        }
    }

    /** An empty store that is gone when it is closed. */
    public static SqliteStorage temporary(Clock clock) {
        try {
            var folder = Files.createTempDirectory("sandpiper");
            // Nobody else knows of it.
            var storage =
                    opened(
                            folder.resolve("data.db"),
                            null,
                            clock,
                            SqliteDatabase.USUAL_LONGEST_READ);
            storage.temporary = folder;
            return storage;
        } catch (IOException e) {
            throw new UncheckedIOException("A temporary folder cannot be made.", e);
        }
    }

    @Override
    public Session snapshot() {
        return database.read();
    }

    @Override
    public String storedIn() {
        return "SQLite " + SqliteDatabase.version();
    }

    @Override
    public Clock clock() {
        return clock;
    }

    @Override
    public List<Peer> peers(Session session) {
        return List.of(own);
    }

    @Override
    public int writers() {
        return 1;
    }

    @Override
    public Map<Shared, Long> stamps(Session session) {
        return Map.of();
    }

    @Override
    public int release(Transaction transaction) {
        return definitions().newestRelease(transaction).orElse(0);
    }

    @Override
    public Transaction begin(boolean reshaping) {
        return reshaping ? database.reshape() : database.write();
    }

    @Override
    public void backUp(Path to) {
        database.copy(to);
    }

    @Override
    public void close() {
        database.close();
        if (hold != null) {
            hold.close();
        }
        var folder = temporary;
        if (folder != null) {
            try (var files = Files.list(folder)) {
                for (var file : files.toList()) {
                    Files.deleteIfExists(file);
                }
                Files.deleteIfExists(folder);
            } catch (IOException e) {
                throw new UncheckedIOException("%s cannot be removed.".formatted(folder), e);
            }
        }
    }
}
