package sandpiper.server.config;

import java.nio.file.Path;
import java.time.Clock;
import sandpiper.engine.Engine;
import sandpiper.engine.port.Storage;
import sandpiper.engine.rehearsal.Copies;
import sandpiper.engine.rehearsal.FileCopies;
import sandpiper.server.settings.Settings;
import sandpiper.store.PostgresStorage;
import sandpiper.store.SqliteStorage;
import sandpiper.store.move.SchemaCopies;
import sandpiper.store.postgres.PostgresSettings;

/** Opens the data where the settings say it is: in a file, or in a database. */
final class DataPlace {
    private DataPlace() {}

    static Storage open(Settings settings, Clock clock) {
        if (!settings.inDatabase()) {
            var file = Path.of(settings.data());
            DataFile.requireExpected(file, settings.fresh());
            return SqliteStorage.open(file, clock, settings.limits().readTime());
        }
        return PostgresStorage.open(postgres(settings));
    }

    private static PostgresSettings postgres(Settings settings) {
        var database = settings.database();
        return new PostgresSettings(
                settings.data(),
                database.user(),
                database.secret(),
                database.readers(),
                database.writers(),
                settings.limits().readTime(),
                database.patience());
    }

    /** Where copies of the data are made for rehearsals. */
    static Copies copies(Settings settings, Engine engine, Storage storage) {
        return settings.inDatabase()
                ? new SchemaCopies(
                        storage, postgres(settings), settings.database().largestCopy().toBytes())
                : new FileCopies(
                        engine,
                        settings.beside().toAbsolutePath(),
                        copy -> SqliteStorage.open(copy, storage.clock()));
    }
}
