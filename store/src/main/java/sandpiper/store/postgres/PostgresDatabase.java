package sandpiper.store.postgres;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.Locale;
import java.util.Properties;
import org.postgresql.PGProperty;
import sandpiper.engine.port.StorageException;
import sandpiper.store.sql.SqlSession;

/**
 * A PostgreSQL database, reached through two pools of connections: those that read see one state
 * for as long as a session lasts, those that write run at the highest isolation there is.
 */
public final class PostgresDatabase implements AutoCloseable {
    /** Statements that stay prepared on a connection: those of a release of a hundred objects. */
    private static final int STATEMENTS = 1_000;

    private static final int OLDEST_VERSION = 14;

    /** Connections that draw numbers, which takes a moment. */
    private static final int DRAWERS = 4;

    private final HikariDataSource readers;
    private final HikariDataSource writers;
    private final HikariDataSource drawers;
    private final String version;

    private PostgresDatabase(PostgresSettings settings, HikariDataSource readers, String version) {
        this.readers = readers;
        this.writers = pool(settings, Purpose.WRITE, settings.writers());
        this.drawers = pool(settings, Purpose.DRAW, DRAWERS);
        this.version = version;
    }

    /** What connections are for. */
    private enum Purpose {
        READ,
        WRITE,
        DRAW
    }

    /**
     * Opens a database and looks whether it can be worked with.
     *
     * @throws StorageException that says what is in the way
     */
    public static PostgresDatabase open(PostgresSettings settings) {
        var version = check(settings);
        return new PostgresDatabase(
                settings, pool(settings, Purpose.READ, settings.readers()), version);
    }

    private static HikariDataSource pool(PostgresSettings settings, Purpose purpose, int most) {
        boolean reading = purpose == Purpose.READ;
        var config = new HikariConfig();
        config.setPoolName("sandpiper-" + purpose.name().toLowerCase(Locale.ROOT));
        config.setJdbcUrl(settings.url());
        config.setUsername(settings.user());
        config.setPassword(settings.password());
        config.setMaximumPoolSize(most);
        config.setMinimumIdle(1);
        config.setAutoCommit(false);
        config.setReadOnly(reading);
        config.setTransactionIsolation(
                switch (purpose) {
                    case READ -> "TRANSACTION_REPEATABLE_READ";
                    case WRITE -> "TRANSACTION_SERIALIZABLE";
                    case DRAW -> "TRANSACTION_READ_COMMITTED";
                });
        config.setConnectionTimeout(settings.longestWait().toMillis());
        // It is opened when it is first needed, so that what is wrong is told by the check.
        config.setInitializationFailTimeout(-1);
        config.setDataSourceProperties(properties(settings, purpose));
        return new HikariDataSource(config);
    }

    private static Properties properties(PostgresSettings settings, Purpose purpose) {
        var properties = new Properties();
        PGProperty.APPLICATION_NAME.set(properties, "sandpiper");
        PGProperty.PREPARED_STATEMENT_CACHE_QUERIES.set(properties, STATEMENTS);
        PGProperty.PREPARE_THRESHOLD.set(properties, 1);
        PGProperty.TCP_KEEP_ALIVE.set(properties, true);
        if (purpose == Purpose.READ) {
            PGProperty.OPTIONS.set(
                    properties,
                    "-c statement_timeout=%d".formatted(settings.longestRead().toMillis()));
        } else if (purpose == Purpose.DRAW) {
            // What is drawn is on the disk before anything that has it, which is written behind.
            PGProperty.OPTIONS.set(properties, "-c synchronous_commit=off");
        }
        return properties;
    }

    /** Its version; told in a sentence when it cannot be worked with. */
    private static String check(PostgresSettings settings) {
        var properties = properties(settings, Purpose.WRITE);
        if (settings.user() != null) {
            PGProperty.USER.set(properties, settings.user());
        }
        if (settings.password() != null) {
            PGProperty.PASSWORD.set(properties, settings.password());
        }
        try (var connection = java.sql.DriverManager.getConnection(settings.url(), properties)) {
            var about = connection.getMetaData();
            if (about.getDatabaseMajorVersion() < OLDEST_VERSION) {
                throw refused(
                        "The database is version %s; version %d or newer is needed."
                                .formatted(about.getDatabaseProductVersion(), OLDEST_VERSION));
            }
            var encoding = first(connection, "select current_setting('server_encoding')");
            if (!"UTF8".equals(encoding)) {
                throw refused(
                        "The database keeps texts in %s; make one whose encoding is UTF8."
                                .formatted(encoding));
            }
            var schema = first(connection, "select current_schema()");
            if (schema == null) {
                throw refused(
                        "The schema the address names is not there; make it, or leave currentSchema"
                                + " out.");
            }
            prepare(connection, schema);
            return about.getDatabaseProductName() + " " + about.getDatabaseProductVersion();
        } catch (SQLException e) {
            throw PostgresFailures.isLost(String.valueOf(e.getSQLState()))
                    ? new StorageException(
                            "The database does not answer; look at its address, and whether it"
                                    + " runs.",
                            String.valueOf(e.getMessage()),
                            e)
                    : PostgresFailures.inWords(e);
        }
    }

    /** Notes that the schema is ours, unless somebody else's tables are in it. */
    private static void prepare(Connection connection, String schema) throws SQLException {
        var ours =
                first(
                        connection,
                        "select count(*) from information_schema.tables where table_schema ="
                                + " current_schema() and table_name = 'sandpiper_format'");
        if (!"0".equals(ours)) {
            return;
        }
        var others =
                first(
                        connection,
                        "select min(table_name) from information_schema.tables where table_schema ="
                                + " current_schema() and table_name <> 'sandpiper_format'");
        if (others != null) {
            throw refused(
                    "The schema %s has tables of another program, such as %s; name an empty one."
                            .formatted(schema, others));
        }
        try (var statement = connection.createStatement()) {
            statement.execute(
                    "create table if not exists sandpiper_format (number bigint primary key)");
        } catch (SQLException e) {
            // Another process that begins at the same moment was first, which is as good.
            if (!"23505".equals(e.getSQLState()) && !"42P07".equals(e.getSQLState())) {
                throw e;
            }
        }
    }

    private static @org.jspecify.annotations.Nullable String first(
            Connection connection, String sql) throws SQLException {
        try (var statement = connection.createStatement();
                var rows = statement.executeQuery(sql)) {
            return rows.next() ? rows.getString(1) : null;
        }
    }

    private static StorageException refused(String words) {
        return new StorageException(words, new IllegalStateException(words));
    }

    /** A transaction beside all others for drawing numbers. */
    public SqlSession draw() {
        return SqlSession.writing(new PostgresLink(connection(drawers)));
    }

    /** Reads what is committed, each statement for itself. */
    public SqlSession glance() {
        var connection = connection(drawers);
        try {
            // The pool puts it back.
            connection.setAutoCommit(true);
            return SqlSession.reading(new PostgresLink(connection));
        } catch (SQLException e) {
            throw PostgresFailures.inWords(e);
        }
    }

    /** How many connections write at a time. */
    public int writers() {
        return writers.getMaximumPoolSize();
    }

    /** What the engine says it is, with its version. */
    public String version() {
        return version;
    }

    /** A session that reads one consistent state. */
    public SqlSession read() {
        return SqlSession.reading(new PostgresLink(connection(readers)));
    }

    /** A write transaction, beside others. */
    public SqlSession write() {
        return SqlSession.writing(new PostgresLink(connection(writers)));
    }

    /**
     * A write transaction that reads one state for as long as it lasts, and conflicts with none.
     */
    public SqlSession copy() {
        var connection = connection(writers);
        try {
            // The pool puts it back.
            connection.setTransactionIsolation(Connection.TRANSACTION_REPEATABLE_READ);
            return SqlSession.writing(new PostgresLink(connection));
        } catch (SQLException e) {
            throw PostgresFailures.inWords(e);
        }
    }

    private static Connection connection(HikariDataSource pool) {
        try {
            return pool.getConnection();
        } catch (SQLTransientConnectionException e) {
            throw e.getCause() instanceof SQLException cause
                    ? PostgresFailures.inWords(cause)
                    : new sandpiper.engine.port.OverloadedException(
                            "More is asked for than can be answered just now; try again in a"
                                    + " second.");
        } catch (SQLException e) {
            throw PostgresFailures.inWords(e);
        }
    }

    @Override
    public void close() {
        readers.close();
        writers.close();
        drawers.close();
    }
}
