package sandpiper.bench.data;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Collections;
import java.util.List;
import sandpiper.bench.control.Tables;
import sandpiper.server.config.DataMove;

/** The data of both services in databases, carried over from their files. */
public final class DatabaseData {
    private static final int ROWS_AT_A_TIME = 1_000;

    private DatabaseData() {}

    /** Carries Sandpiper's over as its users do. */
    public static void sandpiper(Path from, String to) throws SQLException {
        DataMove.move(from.toString(), to, null, (_, _, _, _) -> {});
        analyze(to);
    }

    /** Carries the control's over. */
    public static void control(Path from, String to) throws SQLException {
        try (var source = DriverManager.getConnection("jdbc:sqlite:" + from);
                var target = DriverManager.getConnection(to)) {
            target.setAutoCommit(false);
            try (var sql = target.createStatement()) {
                for (var statement : Tables.forPostgres()) {
                    sql.execute(statement);
                }
                for (var table : Tables.NAMES) {
                    copy(source, target, table);
                }
                for (var table : List.of("stay", "history", "outbox")) {
                    sql.execute(
                            "select setval(pg_get_serial_sequence('%s', 'id'), (select coalesce(max(id), 1) from %s))"
                                    .formatted(table, table));
                }
            }
            target.commit();
        }
        analyze(to);
    }

    private static void copy(Connection source, Connection target, String table)
            throws SQLException {
        try (var reading = source.createStatement();
                var rows = reading.executeQuery("select * from " + table)) {
            int columns = rows.getMetaData().getColumnCount();
            var insert =
                    "insert into %s values (%s)"
                            .formatted(table, String.join(", ", Collections.nCopies(columns, "?")));
            try (var writing = target.prepareStatement(insert)) {
                for (int waiting = 0; rows.next(); ) {
                    for (int i = 1; i <= columns; i++) {
                        writing.setObject(i, value(rows, i));
                    }
                    writing.addBatch();
                    if (++waiting % ROWS_AT_A_TIME == 0) {
                        writing.executeBatch();
                    }
                }
                writing.executeBatch();
            }
        }
    }

    private static Object value(ResultSet rows, int column) throws SQLException {
        return Tables.FLAGS.contains(rows.getMetaData().getColumnName(column))
                ? (Object) rows.getBoolean(column)
                : rows.getObject(column);
    }

    /** What a database that runs does by itself after a while. */
    private static void analyze(String database) throws SQLException {
        try (var connection = DriverManager.getConnection(database);
                var sql = connection.createStatement()) {
            sql.execute("vacuum analyze");
        }
    }
}
