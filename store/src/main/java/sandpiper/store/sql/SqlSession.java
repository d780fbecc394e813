package sandpiper.store.sql;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.jooq.Select;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.Transaction;

/**
 * A transaction on one connection, for reading or for writing. Statements are kept by their text,
 * since preparing one costs SQLite more than running it.
 */
public final class SqlSession implements Transaction {
    private final Connection connection;
    private final StatementCache statements;
    private final boolean writing;
    private final AutoCloseable atEnd;
    private final List<Runnable> afterCommit = new ArrayList<>();
    private int marks;
    private boolean open = true;

    private SqlSession(
            Connection connection,
            StatementCache statements,
            boolean writing,
            AutoCloseable atEnd) {
        this.connection = connection;
        this.statements = statements;
        this.writing = writing;
        this.atEnd = atEnd;
        run(writing ? "begin immediate" : "begin");
    }

    /** Begins to read; {@code atEnd} gives the connection back. */
    static SqlSession reading(
            Connection connection, StatementCache statements, AutoCloseable atEnd) {
        return new SqlSession(connection, statements, false, atEnd);
    }

    /** Begins to write, which one thread at a time may do. */
    static SqlSession writing(
            Connection connection, StatementCache statements, AutoCloseable atEnd) {
        return new SqlSession(connection, statements, true, atEnd);
    }

    /** Whether it is the one transaction that writes. */
    public boolean isWriting() {
        return writing;
    }

    /** Has something done as soon as what was written is durable; not at all if it is undone. */
    public void afterCommit(Runnable done) {
        afterCommit.add(done);
    }

    /** The session behind the port's interface; there is no other kind. */
    public static SqlSession of(Session session) {
        return (SqlSession) session;
    }

    /** Reads one row. */
    @FunctionalInterface
    public interface RowReader<T> {
        T read(ResultSet row) throws SQLException;
    }

    /** Runs a statement that gives no rows; values are bound in order. */
    public int run(String sql, @Nullable Object... values) {
        try {
            var statement = statements.get(connection, sql);
            bind(statement, values);
            return statement.executeUpdate();
        } catch (SQLException e) {
            throw failed(sql, e);
        }
    }

    /** Runs a statement that is used once, such as one that changes a table. */
    public void runOnce(String sql) {
        try (var statement = connection.createStatement()) {
            statement.execute(sql);
        } catch (SQLException e) {
            throw SqlFailures.inWords(e);
        }
    }

    /** Inserts a row and gives its rowid. */
    public long insert(String sql, @Nullable Object... values) {
        run(sql, values);
        return first("select last_insert_rowid()", row -> row.getLong(1)).orElseThrow();
    }

    /** All rows of a query. */
    public <T> List<T> list(String sql, RowReader<T> reader, @Nullable Object... values) {
        try {
            var statement = statements.get(connection, sql);
            bind(statement, values);
            try (var rows = statement.executeQuery()) {
                var read = new ArrayList<T>();
                while (rows.next()) {
                    read.add(reader.read(rows));
                }
                return read;
            }
        } catch (SQLException e) {
            throw failed(sql, e);
        }
    }

    /** All rows of a query that depends on what is asked; its values stand in it. */
    public <T> List<T> list(Select<?> query, RowReader<T> reader) {
        return list(query.getSQL(), reader, query.getBindValues().toArray());
    }

    /** The first row of a query, or nothing. */
    public <T> Optional<T> first(String sql, RowReader<T> reader, @Nullable Object... values) {
        try {
            var statement = statements.get(connection, sql);
            bind(statement, values);
            try (var rows = statement.executeQuery()) {
                return rows.next() ? Optional.of(reader.read(rows)) : Optional.empty();
            }
        } catch (SQLException e) {
            throw failed(sql, e);
        }
    }

    /** The driver closes a statement that fails, so it must not be used again. */
    private StorageException failed(String sql, SQLException cause) {
        statements.forget(sql);
        return SqlFailures.inWords(cause);
    }

    /** The number a query comes to. */
    public long number(String sql, @Nullable Object... values) {
        return first(sql, row -> row.getLong(1), values).orElse(0L);
    }

    private static void bind(PreparedStatement statement, @Nullable Object[] values)
            throws SQLException {
        for (int i = 0; i < values.length; i++) {
            switch (values[i]) {
                case null -> statement.setObject(i + 1, null);
                case Long number -> statement.setLong(i + 1, number);
                case Integer number -> statement.setInt(i + 1, number);
                case String text -> statement.setString(i + 1, text);
                case byte[] bytes -> statement.setBytes(i + 1, bytes);
                case Boolean flag -> statement.setInt(i + 1, flag ? 1 : 0);
                case Object other ->
                        throw new IllegalArgumentException(
                                "%s in %s".formatted(other, Arrays.toString(values)));
            }
        }
    }

    @Override
    public void mark() {
        run("savepoint command");
        marks++;
    }

    @Override
    public int marks() {
        return marks;
    }

    @Override
    public void undoToMark() {
        run("rollback to command");
        run("release command");
        marks--;
    }

    @Override
    public void keepSinceMark() {
        run("release command");
        marks--;
    }

    @Override
    public void commit() {
        run("commit");
        open = false;
        afterCommit.forEach(Runnable::run);
    }

    @Override
    public void close() {
        try (atEnd) {
            if (open) {
                open = false;
                rollback();
            }
        } catch (SQLException e) {
            throw SqlFailures.inWords(e);
        } catch (RuntimeException e) {
            throw e;
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    /**
     * SQLite may have rolled back by itself, as it does on a full disk; then there is nothing left
     * to undo.
     */
    private void rollback() {
        try {
            statements.get(connection, "rollback").executeUpdate();
        } catch (SQLException e) {
            if (!isIdle()) {
                throw SqlFailures.inWords(e);
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
}
