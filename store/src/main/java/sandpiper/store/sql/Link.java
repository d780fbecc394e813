package sandpiper.store.sql;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;

/** A connection with what belongs to it, for one session at a time. */
public interface Link {
    /** The dialect that is spoken on it. */
    Dialect dialect();

    /** The connection itself. */
    Connection connection();

    /** A statement ready to be bound and run; {@link #done} must follow. */
    PreparedStatement prepare(String sql) throws SQLException;

    /** Takes a statement back after it was run. */
    void done(PreparedStatement statement) throws SQLException;

    /** Takes back one that failed. */
    void failed(String sql, PreparedStatement statement);

    /** Begins a transaction. */
    void begin(boolean writing) throws SQLException;

    /** Makes what was written durable. */
    void commit() throws SQLException;

    /** Undoes what was written. */
    void rollback() throws SQLException;

    /** Gives the connection back. */
    void close() throws SQLException;
}
