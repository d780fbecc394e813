package sandpiper.store.schema;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.time.Clock;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import sandpiper.engine.port.StorageException;
import sandpiper.store.SqliteStorage;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.sqlite.SqliteDatabase;

@Tag("sqlite")
class SystemTablesTest {
    @TempDir Path folder;

    static java.util.stream.IntStream formats() {
        return java.util.stream.IntStream.range(0, SystemTables.newest());
    }

    private static java.util.List<String> schema(SqlSession session) {
        return session.list(
                Statement.written(
                        "select sql from sqlite_schema where sql is not null and name not like"
                                + " 'sqlite%' order by name"),
                row -> row.getString(1));
    }

    /** A file as an older version of the service left it, with something in it. */
    private Path older(int format) {
        var file = folder.resolve("v%d.db".formatted(format));
        try (var database = SqliteDatabase.open(file);
                var session = database.write()) {
            SystemTables.prepare(session, format);
            if (format > 0) {
                session.run(
                        Statement.written(
                                "insert into sandpiper_client (name, label, secret_hash, grants,"
                                        + " created_at) values ('ferry', 'Ferry', 'hash', '', 0)"));
            }
            session.commit();
        }
        return file;
    }

    @ParameterizedTest
    @MethodSource("formats")
    void anOlderFileIsBroughtUpToDateAndKeepsWhatItHolds(int format) {
        var file = older(format);
        var fresh = folder.resolve("fresh.db");
        SqliteStorage.open(fresh, Clock.systemUTC()).close();

        try (var storage = SqliteStorage.open(file, Clock.systemUTC());
                var session = storage.snapshot()) {
            assertThat(storage.access().client(session, "ferry").isPresent()).isEqualTo(format > 0);
            try (var database = SqliteDatabase.open(fresh);
                    var other = database.read()) {
                assertThat(schema(SqlSession.of(session))).isEqualTo(schema(other));
            }
        }
    }

    @Test
    void aFileOfANewerServiceIsLeftAlone() {
        var file = older(SystemTables.newest());
        try (var database = SqliteDatabase.open(file);
                var session = database.write()) {
            session.runOnce("pragma user_version = 999");
            session.commit();
        }

        assertThatThrownBy(() -> SqliteStorage.open(file, Clock.systemUTC()))
                .isInstanceOf(StorageException.class)
                .hasMessageContaining("newer version of the service (format 999");
    }
}
