package sandpiper.e2e;

import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import sandpiper.testing.PrivatePostgres;

/**
 * Where journeys keep their data: in files, or with {@code -Dsandpiper.engine=postgres} in a schema
 * for each file. What is seen of the service must be the same.
 */
final class JourneyData {
    private static final boolean ON_POSTGRES =
            "postgres".equals(System.getProperty("sandpiper.engine"));

    private static final Map<Path, String> SCHEMAS = new ConcurrentHashMap<>();

    private JourneyData() {}

    /** What {@code --data} says for a file. */
    static String of(Path file) {
        return ON_POSTGRES
                ? SCHEMAS.computeIfAbsent(file, _ -> Started.POSTGRES.schema())
                : file.toString();
    }

    private static final class Started {
        private static final PrivatePostgres POSTGRES = PrivatePostgres.start();

        static {
            Runtime.getRuntime()
                    .addShutdownHook(
                            new Thread(() -> {
                                // Else it would wait for the database to come back.
                                Marina.stop();
                                POSTGRES.close();
                            }));
        }
    }

    /** Its key, which lies beside a file by itself. */
    static String key(Path file) {
        return file + ".key";
    }
}
