package sandpiper.server.config;

import java.nio.file.Path;
import java.time.Clock;
import sandpiper.engine.port.Storage;
import sandpiper.server.settings.Settings;
import sandpiper.store.PostgresStorage;
import sandpiper.store.SqliteStorage;
import sandpiper.store.postgres.PostgresSettings;

/** Opens the data where the settings say it is: in a file, or in a database. */
final class DataPlace {
    private DataPlace() {}

    static Storage open(Settings settings, Clock clock) {
        var longestRead = settings.limits().readTime();
        if (!settings.inDatabase()) {
            var file = Path.of(settings.data());
            DataFile.requireExpected(file, settings.fresh());
            return SqliteStorage.open(file, clock, longestRead);
        }
        var database = settings.database();
        return PostgresStorage.open(
                new PostgresSettings(
                        settings.data(),
                        database.user(),
                        database.secret(),
                        database.readers(),
                        database.writers(),
                        longestRead,
                        database.patience()),
                clock);
    }
}
