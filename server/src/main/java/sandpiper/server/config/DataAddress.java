package sandpiper.server.config;

import java.nio.file.Path;
import sandpiper.engine.port.StorageException;
import sandpiper.store.postgres.PostgresSettings;

/** Where data is, as it is written for a command: a file, or the address of a database. */
final class DataAddress {
    private DataAddress() {}

    /**
     * @throws StorageException when it is the address of a database that is not known here
     */
    static boolean isDatabase(String place) {
        if (place.startsWith(PostgresSettings.PREFIX)) {
            return true;
        }
        if (place.startsWith("jdbc:") || place.contains("://")) {
            throw refused(
                    "Data is in a file, or in a database whose address begins with %s//; %s is neither."
                            .formatted(PostgresSettings.PREFIX, place));
        }
        return false;
    }

    /**
     * A place that must be a file.
     *
     * @throws StorageException that says what to use instead when it is a database
     */
    static Path file(String place) {
        if (isDatabase(place)) {
            throw refused(
                    "%s is a database, which has its own tools for backups: use pg_restore or psql with what pg_dump wrote. A backup of a file is put into a file and carried over with \"sandpiper move\"."
                            .formatted(place));
        }
        return Path.of(place);
    }

    static StorageException refused(String words) {
        return new StorageException(words, new IllegalStateException(words));
    }
}
