package sandpiper.store.postgres;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.store.sql.Dialect;
import sandpiper.store.sql.Link;

/**
 * A connection of a pool. The driver keeps statements prepared by their text, and begins a
 * transaction together with the first statement of it.
 */
final class PostgresLink implements Link {
    private static final Logger LOG = LoggerFactory.getLogger(PostgresLink.class);

    private final Connection connection;

    PostgresLink(Connection connection) {
        this.connection = connection;
    }

    @Override
    public Dialect dialect() {
        return PostgresDialect.INSTANCE;
    }

    @Override
    public Connection connection() {
        return connection;
    }

    @Override
    public PreparedStatement prepare(String sql) throws SQLException {
        return connection.prepareStatement(sql);
    }

    @Override
    public void done(PreparedStatement statement) throws SQLException {
        statement.close();
    }

    @Override
    public void failed(String sql, PreparedStatement statement) {
        try {
            statement.close();
        } catch (SQLException e) {
            LOG.debug("A failed statement could not be closed", e);
        }
    }

    @Override
    public void begin(boolean writing) {
        // With the first statement.
    }

    @Override
    public void commit() throws SQLException {
        connection.commit();
    }

    @Override
    public void rollback() throws SQLException {
        // Where each statement is for itself there is nothing to undo.
        if (!connection.isClosed() && !connection.getAutoCommit()) {
            connection.rollback();
        }
    }

    @Override
    public void close() throws SQLException {
        connection.close();
    }
}
