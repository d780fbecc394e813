package sandpiper.store.sqlite;

import java.sql.SQLException;
import java.time.Duration;
import java.util.concurrent.BlockingDeque;
import java.util.concurrent.LinkedBlockingDeque;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.sqlite.SQLiteConnection;
import org.sqlite.SQLiteDataSource;
import sandpiper.engine.port.OverloadedException;

/**
 * The connections that only read. One is opened when none is free, up to a number, and kept: a
 * connection to a file does not grow stale, and its prepared statements are worth keeping. The one
 * that was used last is used next, so that few are open while few are needed.
 *
 * <p>A pool for databases far away would look after what cannot happen here, and turn its threads
 * in circles while they wait for each other, which was an eighth of the work of a busy service.
 */
final class ReaderPool implements AutoCloseable {
    /** Threads that read at a time; what is more than the processors can do waits here. */
    private static final int MOST = 16;

    /** How long a read waits for a connection before it is turned away. */
    private static final Duration LONGEST_WAIT = Duration.ofSeconds(5);

    private final SQLiteDataSource source;
    private final BlockingDeque<Reader> free = new LinkedBlockingDeque<>();
    private final Semaphore more;
    private final Duration longestWait;
    private volatile boolean closed;

    /** A connection with what belongs to it. */
    record Reader(SQLiteConnection connection, StatementCache statements, Deadline deadline) {}

    ReaderPool(SQLiteDataSource source) {
        this(source, MOST, LONGEST_WAIT);
    }

    /**
     * @param most connections that are opened
     * @param longestWait how long to wait for one
     */
    ReaderPool(SQLiteDataSource source, int most, Duration longestWait) {
        this.source = source;
        this.more = new Semaphore(most);
        this.longestWait = longestWait;
    }

    /**
     * A connection for the caller alone until it is given back.
     *
     * @throws OverloadedException when none comes free in time
     */
    Reader take() throws SQLException {
        var reader = free.pollFirst();
        if (reader == null) {
            reader = more.tryAcquire() ? open() : waited();
        }
        return reader;
    }

    private Reader waited() {
        @Nullable Reader reader = null;
        try {
            reader = free.pollFirst(longestWait.toMillis(), TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        if (reader == null) {
            throw new OverloadedException(
                    "More is being read than can be answered just now; try again in a second.");
        }
        return reader;
    }

    private Reader open() throws SQLException {
        boolean opened = false;
        try {
            var connection = (SQLiteConnection) source.getConnection();
            try (var statement = connection.createStatement()) {
                statement.execute("pragma query_only = true");
            }
            var reader = new Reader(connection, new StatementCache(), Deadline.on(connection));
            opened = true;
            return reader;
        } finally {
            if (!opened) {
                more.release();
            }
        }
    }

    /** Gives a connection back. */
    void give(Reader reader) throws SQLException {
        free.addFirst(reader);
        if (closed) {
            closeFree();
        }
    }

    /** Closes what is free now, and the rest when it is given back. */
    @Override
    public void close() throws SQLException {
        closed = true;
        closeFree();
    }

    private void closeFree() throws SQLException {
        for (var reader = free.pollFirst(); reader != null; reader = free.pollFirst()) {
            reader.connection().close();
        }
    }
}
