package sandpiper.server.config;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.logging.LogLevel;
import org.springframework.boot.logging.LoggingSystem;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.StorageException;
import sandpiper.store.PostgresStorage;
import sandpiper.store.SqliteStorage;
import sandpiper.store.move.Mover;
import sandpiper.store.postgres.PostgresSettings;

/** Data that is carried from a file to a database, or back. */
public final class DataMove {
    private DataMove() {}

    /** Hears how far it is. */
    @FunctionalInterface
    public interface Listener {
        /** A table is carried over, with so many rows. */
        void moved(String table, long rows, int place, int of);
    }

    /**
     * What was carried over.
     *
     * @param release the newest in it; 0 before the first
     */
    public record Moved(int release, int tables, long rows) {}

    /**
     * Carries everything over and compares both. The services of both are stopped.
     *
     * @param from a file or the address of a database; likewise {@code to}, in which nothing is
     * @param password of databases, or {@code null} when their addresses say all
     * @throws StorageException that says what is in the way; then everything is as it was
     */
    public static Moved move(String from, String to, @Nullable String password, Listener listener) {
        if (!DataAddress.isDatabase(from) && !Files.isRegularFile(Path.of(from))) {
            throw DataAddress.refused("There is no file %s.".formatted(from));
        }
        // Whoever moves is told of tables, not of pools.
        LoggingSystem.get(DataMove.class.getClassLoader())
                .setLogLevel("com.zaxxer.hikari", LogLevel.WARN);
        boolean fresh = !DataAddress.isDatabase(to) && !Files.exists(Path.of(to));
        try (var source = open(from, password);
                var target = open(to, password)) {
            var moved = new Mover(source, target, listener::moved).move();
            return new Moved(moved.release(), moved.tables(), moved.rows());
        } catch (RuntimeException e) {
            if (fresh) {
                remove(Path.of(to));
            }
            throw e;
        }
    }

    private static Storage open(String place, @Nullable String password) {
        if (!DataAddress.isDatabase(place)) {
            return SqliteStorage.open(Path.of(place), Clock.systemUTC());
        }
        var usual = PostgresSettings.usual(place);
        return PostgresStorage.open(
                new PostgresSettings(
                        place,
                        null,
                        password,
                        1,
                        2,
                        // Everything is read, however long that takes.
                        Duration.ofDays(1),
                        usual.longestWait()));
    }

    /** A file that was made for what did not arrive. */
    private static void remove(Path file) {
        for (var end : new String[] {"", "-wal", "-shm"}) {
            try {
                Files.deleteIfExists(Path.of(file + end));
            } catch (java.io.IOException _) {
                // Nothing is in it.
            }
        }
    }
}
