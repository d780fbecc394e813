package sandpiper.store;

import java.nio.file.Path;
import java.time.Clock;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import sandpiper.engine.port.Storage;
import sandpiper.store.postgres.PostgresSettings;
import sandpiper.testing.PrivatePostgres;

/**
 * The engine that tests are run on: SQLite, or PostgreSQL with {@code -Dsandpiper.engine=postgres}.
 * What holds on one must hold on the other.
 */
public final class Stores {
    private static final boolean ON_POSTGRES =
            "postgres".equals(System.getProperty("sandpiper.engine"));

    /** The schemas that stand for files. */
    private static final Map<Path, String> SCHEMAS = new ConcurrentHashMap<>();

    private Stores() {}

    /** Whether it is PostgreSQL. */
    public static boolean arePostgres() {
        return ON_POSTGRES;
    }

    /** Opens what stands for a file, which is made when it is not there. */
    public static Storage open(Path file, Clock clock) {
        if (!ON_POSTGRES) {
            return SqliteStorage.open(file, clock);
        }
        var url = SCHEMAS.computeIfAbsent(file, _ -> PrivatePostgres.shared().schema());
        return PostgresStorage.open(PostgresSettings.usual(url), clock);
    }
}
