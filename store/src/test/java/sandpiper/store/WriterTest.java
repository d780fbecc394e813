package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.writer.WriteMetrics;
import sandpiper.engine.writer.Writer;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;

class WriterTest {
    @TempDir Path folder;

    private static void put(SqlSession session, String name) {
        session.run(
                Statement.written("insert into sandpiper_setting (name, value) values (?, 'x')"),
                name);
    }

    @Test
    void ajobThatFailsIsUndoneAndItsNeighboursAreKept() {
        try (var storage = Stores.open(folder.resolve("data.db"), Clock.systemUTC());
                var writer = Writer.of(storage, 10_000, WriteMetrics.NONE)) {
            var jobs = new ArrayList<CompletableFuture<Boolean>>();
            for (int i = 0; i < 300; i++) {
                var name = "job-" + i;
                boolean fails = i % 3 == 0;
                jobs.add(
                        writer.submit(transaction -> {
                            put(SqlSession.of(transaction), name);
                            if (fails) {
                                throw new IllegalStateException(name);
                            }
                            return true;
                        }));
            }

            for (int i = 0; i < 300; i++) {
                var job = jobs.get(i);
                if (i % 3 == 0) {
                    assertThatThrownBy(job::join)
                            .isInstanceOf(CompletionException.class)
                            .hasMessageContaining("job-" + i);
                } else {
                    assertThat(job.join()).isTrue();
                }
            }
            try (var session = storage.snapshot()) {
                assertThat(
                                SqlSession.of(session)
                                        .number(
                                                Statement.written(
                                                        "select count(*) from sandpiper_setting")))
                        .isEqualTo(200);
            }
        }
    }

    @Test
    void aReaderSeesOneStateHoweverMuchIsWrittenMeanwhile() {
        try (var storage = Stores.open(folder.resolve("data.db"), Clock.systemUTC());
                var writer = Writer.of(storage, 10_000, WriteMetrics.NONE);
                var session = storage.snapshot()) {
            long before =
                    SqlSession.of(session)
                            .number(Statement.written("select count(*) from sandpiper_setting"));
            writer.submit(
                            transaction -> {
                                put(SqlSession.of(transaction), "later");
                                return true;
                            })
                    .join();

            assertThat(
                            SqlSession.of(session)
                                    .number(
                                            Statement.written(
                                                    "select count(*) from sandpiper_setting")))
                    .isEqualTo(before);
        }
    }

    @Test
    void aFileOfANewerVersionIsLeftAlone() {
        var file = folder.resolve("data.db");
        try (var storage = SqliteStorage.open(file, Clock.systemUTC());
                var transaction = storage.begin(false)) {
            SqlSession.of(transaction).runOnce("pragma user_version = 99");
            transaction.commit();
        }

        assertThatThrownBy(() -> SqliteStorage.open(file, Clock.systemUTC()))
                .isInstanceOf(StorageException.class)
                .hasMessageContaining("newer version");
    }
}
