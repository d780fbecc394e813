package sandpiper.bench.data;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * Inserts what one new stay with three charges leaves in Sandpiper's tables, by one thread with
 * nothing around it: the most that this storage can do.
 */
public final class BareWriter implements AutoCloseable {
    private final Connection connection;
    private final int charges;
    private final Table stay;
    private final Table charge;
    private final Table history;
    private final Table event;
    private final PreparedStatement series;
    private long next;

    /** Copies of one row. */
    private static final class Table {
        private final PreparedStatement insert;
        private final List<String> columns = new ArrayList<>();
        private final List<@Nullable Object> row = new ArrayList<>();

        Table(Connection connection, String name, String where) throws SQLException {
            try (var sql = connection.createStatement();
                    var rows = sql.executeQuery("select * from " + name + " where " + where)) {
                rows.next();
                for (int i = 1; i <= rows.getMetaData().getColumnCount(); i++) {
                    columns.add(rows.getMetaData().getColumnName(i));
                    row.add(rows.getObject(i));
                }
            }
            insert =
                    connection.prepareStatement(
                            "insert into %s values (%s)"
                                    .formatted(
                                            name,
                                            String.join(
                                                    ", ", Collections.nCopies(row.size(), "?"))));
        }

        void set(String column, @Nullable Object value) {
            row.set(columns.indexOf(column), value);
        }

        void insert() throws SQLException {
            for (int i = 0; i < row.size(); i++) {
                insert.setObject(i + 1, row.get(i));
            }
            insert.executeUpdate();
        }
    }

    /**
     * On a data file of Sandpiper in which a stay was created over a service.
     *
     * @param charges of each stay
     */
    public BareWriter(Path file, int charges) throws SQLException {
        this.charges = charges;
        connection = DriverManager.getConnection("jdbc:sqlite:" + file);
        execute("pragma synchronous = full");
        execute("pragma wal_autocheckpoint = 16000");
        execute("pragma foreign_keys = on");
        stay = new Table(connection, "Stay", "_number = (select max(_number) from Stay)");
        charge = new Table(connection, "Stay_charges", "true limit 1");
        history = new Table(connection, "sandpiper_history", "operation = 'created' limit 1");
        event = new Table(connection, "sandpiper_event", "true limit 1");
        series =
                connection.prepareStatement(
                        "update sandpiper_series set last = last + 1 where object = 'Stay'");
        next = (Integer) stay.row.getFirst() + 1L;
    }

    private void execute(String text) throws SQLException {
        try (var sql = connection.createStatement()) {
            sql.execute(text);
        }
    }

    /**
     * Writes for a time.
     *
     * @param group stays of one commit
     * @return stays a second
     */
    public double run(Duration time, int group) throws SQLException {
        long start = System.nanoTime();
        long first = next;
        while (System.nanoTime() - start < time.toNanos()) {
            execute("begin immediate");
            for (int i = 0; i < group; i++) {
                write();
            }
            execute("commit");
        }
        return (next - first) / ((System.nanoTime() - start) / 1e9);
    }

    private void write() throws SQLException {
        series.executeUpdate();
        var id = bytes(next);
        stay.set("_number", next);
        stay.set("_id", id);
        stay.set("number", "ST-2024-%07d".formatted(next));
        stay.insert();
        charge.set("_owner", next);
        for (int i = 1; i <= charges; i++) {
            charge.set("_line", (long) i);
            charge.insert();
        }
        history.set("number", null);
        history.set("record", id);
        history.insert();
        event.set("number", null);
        event.set("id", id);
        event.insert();
        next++;
    }

    private static byte[] bytes(long number) {
        var id = new UUID(0x7000L << 48 | number, number | Long.MIN_VALUE);
        return java.nio.ByteBuffer.allocate(16)
                .putLong(id.getMostSignificantBits())
                .putLong(id.getLeastSignificantBits())
                .array();
    }

    @Override
    public void close() throws SQLException {
        connection.close();
    }
}
