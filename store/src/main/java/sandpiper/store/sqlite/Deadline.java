package sandpiper.store.sqlite;

import java.sql.SQLException;
import java.time.Duration;
import org.sqlite.ProgressHandler;
import org.sqlite.SQLiteConnection;

/** Stops what a connection reads when it takes too long, whoever asked for it. */
final class Deadline extends ProgressHandler {
    /** Steps of the database's machine between two looks at the clock: about a millisecond. */
    private static final int STEPS = 50_000;

    private volatile long end = Long.MAX_VALUE;

    private Deadline() {}

    static Deadline on(SQLiteConnection connection) throws SQLException {
        var deadline = new Deadline();
        ProgressHandler.setHandler(connection, STEPS, deadline);
        return deadline;
    }

    /** Sets the end of what begins now. */
    void in(Duration time) {
        end = System.nanoTime() + time.toNanos();
    }

    @Override
    protected int progress() {
        return end != Long.MAX_VALUE && System.nanoTime() - end > 0 ? 1 : 0;
    }
}
