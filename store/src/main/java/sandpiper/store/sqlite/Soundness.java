package sandpiper.store.sqlite;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.port.StorageException;

/**
 * Looks through a data file, so that damage is found before anything is built on it: quickly before
 * the service starts, whole afterwards while it works.
 */
final class Soundness {
    private static final Logger LOG = LoggerFactory.getLogger(Soundness.class);
    private static final String SOUND = "ok";

    private Soundness() {}

    /**
     * The quick look.
     *
     * @param wasStoppedHard whether the service did not stop in order before
     * @throws StorageException when the file is damaged
     */
    static void check(Connection connection, boolean wasStoppedHard) throws SQLException {
        long start = System.nanoTime();
        var found = first(connection, "pragma quick_check(1)");
        if (!found.equals(SOUND)) {
            throw new StorageException(
                    "The data file is damaged (%s): stop the service and restore a backup."
                            .formatted(found),
                    new IllegalStateException(found));
        }
        if (wasStoppedHard) {
            LOG.info(
                    "The service was not stopped in order; the data file was looked through and is"
                            + " sound ({} ms)",
                    (System.nanoTime() - start) / 1_000_000);
        }
    }

    /**
     * The whole look, on a connection of its own, which is closed at the end; tells how far it is
     * in the log.
     *
     * @param damaged hears what is wrong
     */
    static void checkWhole(Connection connection, Consumer<String> damaged) {
        long start = System.nanoTime();
        try (connection) {
            var tables = tables(connection);
            int told = 0;
            for (int i = 0; i < tables.size(); i++) {
                var found =
                        first(
                                connection,
                                "pragma integrity_check('%s')"
                                        .formatted(tables.get(i).replace("'", "''")));
                if (!found.equals(SOUND)) {
                    damaged.accept(found);
                    return;
                }
                int tenths = 10 * (i + 1) / tables.size();
                if (tenths > told && System.nanoTime() - start > 5_000_000_000L) {
                    told = tenths;
                    LOG.info("The data file is being looked through: {} %", tenths * 10);
                }
            }
            LOG.debug("The whole data file is sound");
        } catch (SQLException e) {
            if (Thread.currentThread().isInterrupted()) {
                return;
            }
            damaged.accept(String.valueOf(e.getMessage()));
        }
    }

    /** The whole look at a backup; gives the number of its newest release. */
    static int checkBackup(Connection connection, Path named, int format) throws SQLException {
        var known =
                first(
                        connection,
                        "select count(*) from sqlite_schema where name in ('sandpiper_release',"
                                + " 'sandpiper_draft')");
        if (!known.equals("2")) {
            throw new StorageException(
                    "%s is no data file of Sandpiper.".formatted(named),
                    new IllegalStateException(known));
        }
        var written = first(connection, "pragma user_version");
        if (Integer.parseInt(written) > format) {
            throw new StorageException(
                    "%s was written by a newer version of the service (format %s, this one knows %d)."
                            .formatted(named, written, format),
                    new IllegalStateException(written));
        }
        var found = first(connection, "pragma integrity_check(1)");
        if (!found.equals(SOUND)) {
            throw new StorageException(
                    "%s is damaged (%s).".formatted(named, found),
                    new IllegalStateException(found));
        }
        return Integer.parseInt(
                first(connection, "select coalesce(max(number), 0) from sandpiper_release"));
    }

    private static List<String> tables(Connection connection) throws SQLException {
        var tables = new ArrayList<String>();
        try (var statement = connection.createStatement();
                var rows =
                        statement.executeQuery(
                                "select name from sqlite_schema where type = 'table'")) {
            while (rows.next()) {
                tables.add(rows.getString(1));
            }
        }
        return tables;
    }

    private static String first(Connection connection, String sql) throws SQLException {
        try (var statement = connection.createStatement();
                var rows = statement.executeQuery(sql)) {
            return rows.next() ? rows.getString(1) : "nothing";
        }
    }
}
