package sandpiper.store.sqlite;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import sandpiper.store.sql.Dialect;
import sandpiper.store.sql.Link;

/**
 * A connection to a file. Statements are kept by their text, since preparing one costs SQLite more
 * than running it.
 */
final class SqliteLink implements Link {
    private final Connection connection;
    private final StatementCache statements;
    private final Giving atEnd;

    /** Gives the connection back. */
    @FunctionalInterface
    interface Giving {
        void back() throws SQLException;
    }

    SqliteLink(Connection connection, StatementCache statements, Giving atEnd) {
        this.connection = connection;
        this.statements = statements;
        this.atEnd = atEnd;
    }

    @Override
    public Dialect dialect() {
        return SqliteDialect.INSTANCE;
    }

    @Override
    public Connection connection() {
        return connection;
    }

    @Override
    public PreparedStatement prepare(String sql) throws SQLException {
        return statements.get(connection, sql);
    }

    @Override
    public void done(PreparedStatement statement) {
        // It is kept for the next time.
    }

    /** The driver closes a statement that fails, so it must not be used again. */
    @Override
    public void failed(String sql, PreparedStatement statement) {
        statements.forget(sql);
    }

    @Override
    public void begin(boolean writing) throws SQLException {
        run(writing ? "begin immediate" : "begin");
    }

    @Override
    public void commit() throws SQLException {
        run("commit");
    }

    private void run(String sql) throws SQLException {
        try {
            statements.get(connection, sql).executeUpdate();
        } catch (SQLException e) {
            statements.forget(sql);
            throw e;
        }
    }

    /**
     * SQLite may have rolled back by itself, as it does on a full disk; then there is nothing left
     * to undo.
     */
    @Override
    public void rollback() throws SQLException {
        try {
            statements.get(connection, "rollback").executeUpdate();
        } catch (SQLException e) {
            if (!isIdle()) {
                throw e;
            }
        }
    }

    /** Whether there is no transaction: only then can one begin. */
    private boolean isIdle() {
        try (var statement = connection.createStatement()) {
            statement.execute("begin");
            statement.execute("rollback");
            return true;
        } catch (SQLException _) {
            return false;
        }
    }

    @Override
    public void close() throws SQLException {
        atEnd.back();
    }
}
