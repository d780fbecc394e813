package sandpiper.store.sql;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.jooq.Query;
import org.jooq.Select;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.Transaction;

/** A transaction on one connection, for reading or for writing. For one thread at a time. */
public final class SqlSession implements Transaction {
    private static final Logger LOG = LoggerFactory.getLogger(SqlSession.class);

    private static final Object[] NOTHING = {};

    /** Rows that are fetched at a time where there are many. */
    private static final int ROWS_AT_ONCE = 1_000;

    private final Link link;
    private final Dialect dialect;
    private final boolean writing;
    private final List<Runnable> afterCommit = new ArrayList<>();
    private int marks;

    /** Whether the last mark is there still, though nobody goes back to it. */
    private boolean kept;

    private boolean open = true;
    private int release = -1;
    private @Nullable IdentityHashMap<Object, Object> along;

    private SqlSession(Link link, boolean writing) {
        this.link = link;
        this.dialect = link.dialect();
        this.writing = writing;
        try {
            link.begin(writing);
        } catch (SQLException e) {
            throw dialect.inWords(e);
        }
    }

    /** Begins to read. */
    public static SqlSession reading(Link link) {
        return new SqlSession(link, false);
    }

    /** Begins to write. */
    public static SqlSession writing(Link link) {
        return new SqlSession(link, true);
    }

    /** Whether it is the one transaction that writes: what it has read stays as it is. */
    public boolean isSoleWriter() {
        return writing && dialect.hasOneWriter();
    }

    /** Whether it was begun to write. */
    public boolean isWriting() {
        return writing;
    }

    /**
     * What goes along with this transaction and ends with it.
     *
     * @param owner whose it is, told by identity
     * @param made makes it when there is none yet; always of one type for one owner
     */
    @SuppressWarnings("unchecked")
    public <T> T along(Object owner, Supplier<T> made) {
        var known = along;
        if (known == null) {
            known = new IdentityHashMap<>(4);
            along = known;
        }
        return (T) known.computeIfAbsent(owner, _ -> made.get());
    }

    /** The dialect that is spoken. */
    public Dialect dialect() {
        return dialect;
    }

    /** Notes the release that is live for as long as the transaction lasts. */
    public void release(int number) {
        release = number;
    }

    /** The release that was {@linkplain #release(int) noted}; -1 when none was. */
    public int release() {
        return release;
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

    /** Takes one row. */
    @FunctionalInterface
    public interface RowConsumer {
        void take(ResultSet row) throws SQLException;
    }

    /** Does something with a statement whose values are bound. */
    @FunctionalInterface
    private interface Use<T> {
        T of(PreparedStatement statement) throws SQLException;
    }

    private <T> T using(String sql, @Nullable Object[] values, Use<T> use) {
        PreparedStatement statement = null;
        try {
            statement = link.prepare(sql);
            bind(statement, values);
            var result = use.of(statement);
            link.done(statement);
            return result;
        } catch (SQLException e) {
            if (statement != null) {
                link.failed(sql, statement);
            }
            throw dialect.inWords(e);
        }
    }

    /** Runs a statement that gives no rows; values are bound in order. */
    public int run(Statement statement, @Nullable Object... values) {
        return run(statement.in(dialect), values);
    }

    private int run(String sql, @Nullable Object... values) {
        return using(sql, values, PreparedStatement::executeUpdate);
    }

    /** Runs a statement that is used once, such as one that changes a table. */
    public void runOnce(String sql) {
        try (var statement = link.connection().createStatement()) {
            statement.execute(sql);
        } catch (SQLException e) {
            throw dialect.inWords(e);
        }
    }

    /** The same of one that has no values to be bound. */
    public void runOnce(Query query) {
        runOnce(dialect.render(query));
    }

    /** Runs a statement for each of many rows of values at once. */
    public void runAll(Statement statement, List<@Nullable Object[]> rows) {
        using(
                statement.in(dialect),
                NOTHING,
                prepared -> {
                    for (var values : rows) {
                        bind(prepared, values);
                        prepared.addBatch();
                    }
                    return prepared.executeBatch();
                });
    }

    /** Inserts a row with a statement that gives its number. */
    public long insert(Statement statement, @Nullable Object... values) {
        return first(statement, row -> row.getLong(1), values).orElseThrow();
    }

    /** All rows of a query. */
    public <T> List<T> list(Statement statement, RowReader<T> reader, @Nullable Object... values) {
        return list(statement.in(dialect), reader, values);
    }

    /** All rows of a query that depends on what is asked; its values stand in it. */
    public <T> List<T> list(Select<?> query, RowReader<T> reader) {
        return list(dialect.render(query), reader, query.getBindValues().toArray());
    }

    private <T> List<T> list(String sql, RowReader<T> reader, @Nullable Object... values) {
        return using(
                sql,
                values,
                statement -> {
                    try (var rows = statement.executeQuery()) {
                        var read = new ArrayList<T>();
                        while (rows.next()) {
                            read.add(reader.read(rows));
                        }
                        return read;
                    }
                });
    }

    /** Each row of a query in its turn, however many there are. */
    public void each(Statement statement, RowConsumer consumer) {
        using(
                statement.in(dialect),
                NOTHING,
                prepared -> {
                    prepared.setFetchSize(ROWS_AT_ONCE);
                    try (var rows = prepared.executeQuery()) {
                        while (rows.next()) {
                            consumer.take(rows);
                        }
                    }
                    return true;
                });
    }

    /**
     * Runs queries that are {@linkplain Statement#together one statement}, on one way to the
     * database and back.
     *
     * @param consumers one for the rows of each query
     */
    public void together(
            Statement statement, List<RowConsumer> consumers, @Nullable Object... values) {
        using(
                statement.in(dialect),
                values,
                prepared -> {
                    boolean isThere = prepared.execute();
                    for (var consumer : consumers) {
                        if (!isThere) {
                            throw new IllegalStateException("Fewer answers than queries");
                        }
                        try (var rows = prepared.getResultSet()) {
                            while (rows.next()) {
                                consumer.take(rows);
                            }
                        }
                        isThere = prepared.getMoreResults();
                    }
                    return true;
                });
    }

    /** The first row of a query, or nothing. */
    public <T> Optional<T> first(
            Statement statement, RowReader<T> reader, @Nullable Object... values) {
        return using(
                statement.in(dialect),
                values,
                prepared -> {
                    try (var rows = prepared.executeQuery()) {
                        return rows.next() ? Optional.of(reader.read(rows)) : Optional.empty();
                    }
                });
    }

    /** The number a query comes to; 0 when it comes to nothing. */
    public long number(Statement statement, @Nullable Object... values) {
        return first(statement, row -> row.getLong(1), values).orElse(0L);
    }

    /** The number a query comes to that depends on what is asked. */
    public long number(Select<?> query) {
        var found = list(query, row -> row.getLong(1));
        return found.isEmpty() ? 0 : found.getFirst();
    }

    private void bind(PreparedStatement statement, @Nullable Object[] values) throws SQLException {
        for (int i = 0; i < values.length; i++) {
            switch (values[i]) {
                case null -> statement.setObject(i + 1, null);
                case Long number -> statement.setLong(i + 1, number);
                case Integer number -> statement.setInt(i + 1, number);
                case String text -> statement.setString(i + 1, dialect.text(text));
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
        if (kept) {
            run("release command", NOTHING);
            kept = false;
        }
        run("savepoint command", NOTHING);
        marks++;
    }

    @Override
    public int marks() {
        return marks;
    }

    @Override
    public void undoToMark() {
        run("rollback to command", NOTHING);
        run("release command", NOTHING);
        marks--;
    }

    @Override
    public void keepSinceMark() {
        marks--;
        if (marks == 0) {
            // Most often the end of the transaction is next, which takes it along.
            kept = true;
        } else {
            run("release command", NOTHING);
        }
    }

    @Override
    public void commit() {
        try {
            link.commit();
        } catch (SQLException e) {
            throw dialect.isLost(e)
                    ? new StorageException.Uncertain(String.valueOf(e.getMessage()), e)
                    : dialect.inWords(e);
        }
        open = false;
        afterCommit.forEach(Runnable::run);
    }

    @Override
    public void close() {
        boolean committed = !open;
        try {
            try {
                if (open) {
                    open = false;
                    link.rollback();
                }
            } finally {
                link.close();
            }
        } catch (SQLException e) {
            if (!committed) {
                throw dialect.inWords(e);
            }
            // What is committed stays so; a word of failure would have it done once more.
            LOG.warn("A connection could not be given back", e);
        }
    }
}
