package sandpiper.store.sqlite;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteConnection;
import org.sqlite.SQLiteDataSource;
import org.sqlite.SQLiteJDBCLoader;
import sandpiper.engine.port.StorageException;
import sandpiper.store.sql.SqlSession;

/**
 * One SQLite file in write-ahead mode: a single connection that writes, and a pool of connections
 * that only read and so never wait for it.
 */
public final class SqliteDatabase implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(SqliteDatabase.class);
    private static final int BUSY_TIMEOUT_MILLIS = 5_000;

    /**
     * Pages in the log before it is copied back: about 64 MB, so that copying stays off the path of
     * most commits.
     */
    private static final int PAGES_PER_CHECKPOINT = 16_000;

    /** Bytes of the file that are mapped into memory for reading. */
    private static final long MAPPED = 256L << 20;

    /** How long one read may take before it is stopped, where nothing else is said. */
    public static final Duration USUAL_LONGEST_READ = Duration.ofSeconds(15);

    private final ReaderPool readers;
    private final Connection writer;
    private final StatementCache writerStatements = new StatementCache();
    private final SQLiteDataSource source;

    private final Duration longestRead;

    private final FileWatch watch;
    private final Thread wholeLook;

    private SqliteDatabase(
            SQLiteDataSource source,
            Duration longestRead,
            Connection writer,
            ReaderPool readers,
            FileWatch watch,
            Connection looking) {
        this.watch = watch;
        this.wholeLook =
                Thread.ofPlatform()
                        .daemon()
                        .name("sandpiper-look")
                        .start(() -> Soundness.checkWhole(looking, watch::damaged));
        this.source = source;
        this.longestRead = longestRead;
        this.writer = writer;
        this.readers = readers;
    }

    /** The version of the library. */
    public static String version() {
        return SQLiteJDBCLoader.getVersion();
    }

    /** Writes a copy of one moment to a file that is not there yet. */
    public void copy(Path to) {
        FileModes.make(to);
        try (var connection = source.getConnection();
                var statement = connection.prepareStatement("vacuum into ?")) {
            statement.setString(1, to.toString());
            statement.execute();
        } catch (SQLException e) {
            throw SqliteFailures.inWords(e);
        }
    }

    /** Opens a file, which is made when there is none. */
    public static SqliteDatabase open(Path file) {
        return open(file, USUAL_LONGEST_READ);
    }

    /**
     * The same.
     *
     * @param longestRead how long a read may take before it is stopped
     */
    public static SqliteDatabase open(Path file, Duration longestRead) {
        boolean wasStoppedHard = Files.exists(Path.of(file + "-wal"));
        try {
            var writer = source(file).getConnection();
            try (var statement = writer.createStatement()) {
                statement.execute("pragma wal_autocheckpoint = " + PAGES_PER_CHECKPOINT);
            }
            Soundness.check(writer, wasStoppedHard);
            return new SqliteDatabase(
                    source(file),
                    longestRead,
                    writer,
                    new ReaderPool(source(file)),
                    new FileWatch(file),
                    source(file).getConnection());
        } catch (SQLException e) {
            throw SqliteFailures.inWords(e);
        }
    }

    /**
     * Looks through a copy of a backup as a whole.
     *
     * @param named what messages call it
     * @param format the newest this service knows
     * @return the newest release in it; 0 before the first
     * @throws StorageException when it is no data file of this service, is of a newer one, or is
     *     damaged
     */
    public static int look(Path copy, Path named, int format) {
        var config = new SQLiteConfig();
        config.setReadOnly(true);
        var source = new SQLiteDataSource(config);
        source.setUrl("jdbc:sqlite:" + copy);
        try (var connection = source.getConnection()) {
            return Soundness.checkBackup(connection, named, format);
        } catch (SQLException e) {
            throw new StorageException(
                    "%s is no data file of Sandpiper, or is damaged: %s"
                            .formatted(named, e.getMessage()),
                    e);
        }
    }

    /** Brings what stands in the log of a file that nobody has open into the file itself. */
    public static void settle(Path file) {
        if (!Files.exists(Path.of(file + "-wal"))) {
            return;
        }
        try (var connection = source(file).getConnection();
                var statement = connection.createStatement()) {
            statement.execute("pragma wal_checkpoint(truncate)");
        } catch (SQLException e) {
            // A damaged file is often why a backup is wanted; it is kept as it is, with its log.
            LOG.warn("The log of {} could not be brought into it", file, e);
        }
    }

    private static SQLiteDataSource source(Path file) {
        var config = new SQLiteConfig();
        config.setJournalMode(SQLiteConfig.JournalMode.WAL);
        // FULL: a commit is on the disk when it returns, also when the power fails.
        config.setSynchronous(SQLiteConfig.SynchronousMode.FULL);
        config.setBusyTimeout(BUSY_TIMEOUT_MILLIS);
        config.enforceForeignKeys(true);
        config.setTempStore(SQLiteConfig.TempStore.MEMORY);
        config.setPragma(SQLiteConfig.Pragma.MMAP_SIZE, Long.toString(MAPPED));
        // The driver would ask for the last number after every statement; we ask when we need it.
        config.setGetGeneratedKeys(false);
        var source =
                new SQLiteDataSource(config) {
                    @Override
                    public SQLiteConnection getConnection(
                            @Nullable String user, @Nullable String password) throws SQLException {
                        var connection = super.getConnection(user, password);
                        LetterFunctions.addTo(connection);
                        return connection;
                    }
                };
        source.setUrl("jdbc:sqlite:" + file);
        return source;
    }

    /** A session that reads one consistent state. */
    public SqlSession read() {
        try {
            var reader = readers.take();
            boolean begun = false;
            try {
                reader.deadline().in(longestRead);
                var session =
                        SqlSession.reading(
                                new SqliteLink(
                                        reader.connection(),
                                        reader.statements(),
                                        () -> readers.give(reader)));
                begun = true;
                return session;
            } finally {
                if (!begun) {
                    readers.give(reader);
                }
            }
        } catch (SQLException e) {
            throw SqliteFailures.inWords(e);
        }
    }

    /** The write transaction; only one at a time, by one thread. */
    public SqlSession write() {
        watch.requireSound();
        return SqlSession.writing(new SqliteLink(writer, writerStatements, () -> {}));
    }

    /**
     * The write transaction for changing tables: links between them are not followed while it runs.
     */
    public SqlSession reshape() {
        watch.requireSound();
        foreignKeys(false);
        return SqlSession.writing(
                new SqliteLink(writer, writerStatements, () -> foreignKeys(true)));
    }

    /** SQLite takes this only outside a transaction. */
    private void foreignKeys(boolean on) {
        try (var statement = writer.createStatement()) {
            statement.execute("pragma foreign_keys = " + (on ? "on" : "off"));
        } catch (SQLException e) {
            throw SqliteFailures.inWords(e);
        }
    }

    /** Closes it; that figures for the planner could not be kept is no reason not to. */
    @Override
    public void close() {
        watch.close();
        wholeLook.interrupt();
        try (writer;
                var statement = writer.createStatement()) {
            readers.close();
            statement.execute("pragma optimize");
        } catch (SQLException e) {
            LOG.warn("The data file was closed without its figures: {}", e.getMessage());
        }
    }
}
