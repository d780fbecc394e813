package sandpiper.store.sql;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Map;
import java.util.WeakHashMap;
import org.jspecify.annotations.Nullable;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteConnection;
import org.sqlite.SQLiteDataSource;

/**
 * One SQLite file in write-ahead mode: a single connection that writes, and a pool of connections
 * that only read and so never wait for it.
 */
public final class Database implements AutoCloseable {
    private static final int READERS = 8;
    private static final int BUSY_TIMEOUT_MILLIS = 5_000;

    /**
     * Pages in the log before it is copied back: about 64 MB, so that copying stays off the path of
     * most commits.
     */
    private static final int PAGES_PER_CHECKPOINT = 16_000;

    /** Bytes of the file that are mapped into memory for reading. */
    private static final long MAPPED = 256L << 20;

    private final HikariDataSource readers;
    private final Connection writer;
    private final StatementCache writerStatements = new StatementCache();
    private final Map<SQLiteConnection, StatementCache> readerStatements = new WeakHashMap<>();

    private Database(Connection writer, HikariDataSource readers) {
        this.writer = writer;
        this.readers = readers;
    }

    /** Opens a file, which is made when there is none. */
    public static Database open(Path file) {
        try {
            var writer = source(file).getConnection();
            try (var statement = writer.createStatement()) {
                statement.execute("pragma wal_autocheckpoint = " + PAGES_PER_CHECKPOINT);
            }
            var pool = new HikariConfig();
            pool.setPoolName("sandpiper-readers");
            pool.setDataSource(source(file));
            pool.setMaximumPoolSize(READERS);
            pool.setConnectionInitSql("pragma query_only = true");
            // A reader's connection never grows stale, and its kept statements are worth keeping.
            pool.setMaxLifetime(0);
            pool.setIdleTimeout(0);
            return new Database(writer, new HikariDataSource(pool));
        } catch (SQLException e) {
            throw Failures.inWords(e);
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
            var connection = readers.getConnection();
            var physical = connection.unwrap(SQLiteConnection.class);
            StatementCache statements;
            synchronized (readerStatements) {
                statements = readerStatements.computeIfAbsent(physical, _ -> new StatementCache());
            }
            return SqlSession.reading(physical, statements, connection);
        } catch (SQLException e) {
            throw Failures.inWords(e);
        }
    }

    /** The write transaction; only one at a time, by one thread. */
    public SqlSession write() {
        return SqlSession.writing(writer, writerStatements, () -> {});
    }

    /**
     * The write transaction for changing tables: links between them are not followed while it runs.
     */
    public SqlSession reshape() {
        foreignKeys(false);
        return SqlSession.writing(writer, writerStatements, () -> foreignKeys(true));
    }

    /** SQLite takes this only outside a transaction. */
    private void foreignKeys(boolean on) {
        try (var statement = writer.createStatement()) {
            statement.execute("pragma foreign_keys = " + (on ? "on" : "off"));
        } catch (SQLException e) {
            throw Failures.inWords(e);
        }
    }

    @Override
    public void close() {
        readers.close();
        try (writer) {
            try (var statement = writer.createStatement()) {
                statement.execute("pragma optimize");
            }
        } catch (SQLException e) {
            throw Failures.inWords(e);
        }
    }
}
