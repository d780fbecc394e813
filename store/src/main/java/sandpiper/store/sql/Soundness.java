package sandpiper.store.sql;

import java.sql.Connection;
import java.sql.SQLException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.port.StorageException;

/**
 * Looks through a data file when the service did not stop in order, so that damage is found before
 * anything is built on it.
 */
final class Soundness {
    private static final Logger LOG = LoggerFactory.getLogger(Soundness.class);

    private Soundness() {}

    static void check(Connection connection) throws SQLException {
        long start = System.nanoTime();
        try (var statement = connection.createStatement();
                var rows = statement.executeQuery("pragma quick_check(1)")) {
            var found = rows.next() ? rows.getString(1) : "nothing";
            if (!found.equals("ok")) {
                throw new StorageException(
                        "The data file is damaged (%s): stop the service and restore a backup."
                                .formatted(found),
                        new IllegalStateException(found));
            }
        }
        LOG.info(
                "The service was not stopped in order; the data file was looked through and is"
                        + " sound ({} ms)",
                (System.nanoTime() - start) / 1_000_000);
    }
}
