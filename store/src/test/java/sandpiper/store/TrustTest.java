package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.delivery.Backoff;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.TooLongException;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.testing.SettableClock;

/** What happens to the data when the machine does not do what one hopes. */
@Tag("sqlite")
class TrustTest {
    private static final String STAY =
            """
            object: Stay
            key: number
            numbering: { field: number, pattern: "ST-{year}-{sequence:4}" }
            fields:
              number: { type: text, length: 20, readOnly: true }
              nights: { type: integer, default: 1 }
              remarks: { type: text, length: 4000 }
              total: { type: integer, formula: nights * 10 }
            """;

    @TempDir Path folder;

    private static void onWriter(Harness marina, String sql) {
        try (var session = SqlSession.of(marina.storage.begin(false))) {
            session.commit();
            session.runOnce(sql);
        }
    }

    private static long pages(Harness marina) {
        return marina.look(
                session -> SqlSession.of(session).number(Statement.written("pragma page_count")));
    }

    private static List<Map<String, @Nullable Object>> longOnes(int count) {
        var rows = new ArrayList<Map<String, @Nullable Object>>();
        for (int i = 0; i < count; i++) {
            rows.add(Harness.values("remarks", "x".repeat(3_900)));
        }
        return rows;
    }

    @Test
    void aFullDiskIsToldLosesNothingAndIsOverWhenThereIsRoom() {
        try (var marina = new Harness(folder).release(STAY)) {
            marina.create("Stay", "nights", 2L);
            onWriter(marina, "pragma max_page_count = " + pages(marina));

            assertThatThrownBy(() -> marina.createTogether("Stay", longOnes(100)))
                    .isInstanceOf(StorageException.class)
                    .hasMessageContaining("The disk is full");
            assertThat(marina.text("Stay", "ST-2026-0001", "total")).isEqualTo("20");

            onWriter(marina, "pragma max_page_count = 1000000");
            marina.engine.checkWritable();
            assertThat(marina.createTogether("Stay", longOnes(100)))
                    .allMatch(outcome -> outcome instanceof Outcome.Done);
        }
    }

    @Test
    void aFileThatCannotBeWrittenIsToldAndCanStillBeRead() {
        try (var marina = new Harness(folder).release(STAY)) {
            marina.create("Stay", "nights", 2L);
            onWriter(marina, "pragma query_only = on");

            assertThatThrownBy(() -> marina.create("Stay"))
                    .isInstanceOf(StorageException.class)
                    .hasMessageContaining("cannot be written: check its permissions");
            assertThatThrownBy(marina.engine::checkWritable).isInstanceOf(StorageException.class);
            assertThat(marina.text("Stay", "ST-2026-0001", "nights")).isEqualTo("2");
        }
        try (var marina = new Harness(folder)) {
            assertThat(marina.create("Stay")).isInstanceOf(Outcome.Done.class);
        }
    }

    @Test
    void whatIsNoDataFileIsToldAtTheStart() throws IOException {
        Files.writeString(folder.resolve("data.db"), "This is a shopping list, not a marina.\n");

        assertThatThrownBy(() -> SqliteStorage.open(folder.resolve("data.db"), Harness.CLOCK))
                .isInstanceOf(StorageException.class)
                .hasMessageContaining("damaged")
                .hasMessageContaining("restore a backup");
    }

    @Test
    void damageIsFoundAtTheStartAfterTheServiceWasKilled() throws IOException {
        try (var marina = new Harness(folder).release(STAY)) {
            marina.createTogether("Stay", longOnes(200));
        }
        var data = folder.resolve("data.db");
        try (var file = new RandomAccessFile(data.toFile(), "rw")) {
            for (long at = file.length() / 2; at < file.length(); at += 4_096) {
                file.seek(at);
                file.write(new byte[64]);
            }
        }
        // A service that is stopped in order leaves no log behind.
        Files.createFile(folder.resolve("data.db-wal"));

        assertThatThrownBy(() -> SqliteStorage.open(data, Harness.CLOCK))
                .isInstanceOf(StorageException.class)
                .hasMessageContaining("damaged");
    }

    @Test
    void aFolderThatCannotBeMadeIsTold() throws IOException {
        Files.writeString(folder.resolve("file"), "no folder");

        assertThatThrownBy(() ->
                        SqliteStorage.open(folder.resolve("file/below/data.db"), Harness.CLOCK))
                .hasMessageContaining("The folder of");
    }

    @Test
    void aBackupMadeWhileOthersWriteIsWholeAndCanBeStartedFrom() throws Exception {
        var copy = folder.resolve("copy/data.db");
        Files.createDirectories(copy.getParent());
        int before;
        try (var marina = new Harness(folder).release(STAY)) {
            marina.createTogether("Stay", longOnes(300));
            before = 300;
            var done = new AtomicBoolean();
            var writing =
                    CompletableFuture.runAsync(() -> {
                        while (!done.get()) {
                            marina.create("Stay", "nights", 3L);
                        }
                    });
            marina.storage.backUp(copy);
            done.set(true);
            writing.join();
        }
        try (var restored = new Harness(copy.getParent())) {
            var check =
                    restored.look(session ->
                            SqlSession.of(session)
                                    .list(
                                            Statement.written("pragma integrity_check"),
                                            row -> row.getString(1)));
            assertThat(check).containsExactly("ok");
            long there =
                    restored.engine
                            .records()
                            .read((live, session) ->
                                    live.records()
                                            .count(session, live.release().object("Stay"))
                                            .inUse());
            assertThat(there).isGreaterThanOrEqualTo(before);
            // It goes on: the next number is free.
            assertThat(restored.create("Stay")).isInstanceOf(Outcome.Done.class);
        }
    }

    @Test
    void aFileCopiedBackOverAnotherIsServed() throws IOException {
        var kept = folder.resolve("kept.db");
        try (var marina = new Harness(folder).release(STAY)) {
            marina.create("Stay", "nights", 7L);
            marina.storage.backUp(kept);
            marina.change("Stay", "ST-2026-0001", "nights", 1L);
        }
        Files.copy(kept, folder.resolve("data.db"), StandardCopyOption.REPLACE_EXISTING);

        try (var marina = new Harness(folder)) {
            assertThat(marina.text("Stay", "ST-2026-0001", "nights")).isEqualTo("7");
        }
    }

    @Test
    void aReadThatTakesTooLongIsStopped() {
        try (var storage =
                SqliteStorage.open(
                        folder.resolve("data.db"), Harness.CLOCK, Duration.ofMillis(300))) {
            assertThatThrownBy(() -> endless(storage))
                    .isInstanceOf(TooLongException.class)
                    .hasMessageContaining("takes too long");
            // The connection is as good as before.
            try (var session = storage.snapshot()) {
                assertThat(SqlSession.of(session).number(Statement.written("select 7")))
                        .isEqualTo(7);
            }
        }
    }

    private static void endless(SqliteStorage storage) {
        try (var session = storage.snapshot()) {
            SqlSession.of(session)
                    .number(
                            Statement.written(
                                    "with recursive n(i) as (select 1 union all select i + 1 from"
                                            + " n) select count(*) from n"));
        }
    }

    @Test
    void aClockThatJumpsMixesNothingUp() {
        var clock = new SettableClock(Instant.parse("2026-05-01T10:00:00Z"));
        try (var marina = new Harness(folder, clock, Backoff.OF_HANDLERS).release(STAY)) {
            marina.create("Stay");
            clock.advance(Duration.ofDays(-400));
            marina.create("Stay");
            marina.change("Stay", "ST-2026-0001", "nights", 5L);
            clock.advance(Duration.ofDays(800));
            marina.change("Stay", "ST-2026-0001", "nights", 6L);

            assertThat(marina.text("Stay", "ST-2025-0001", "nights")).isEqualTo("1");
            var operations =
                    marina.engine
                            .records()
                            .read((live, session) -> {
                                var type = live.release().object("Stay");
                                var tree = live.release().everythingOf(type);
                                var record =
                                        marina.engine
                                                .records()
                                                .find(live, session, type, "ST-2026-0001", tree)
                                                .orElseThrow();
                                assertThat(record.version()).isEqualTo(3);
                                return marina
                                        .engine
                                        .records()
                                        .history(live, session, type, record, 10)
                                        .stream()
                                        .map(entry -> entry.version())
                                        .toList();
                            });
            // In the order in which things happened, whatever the clock said.
            assertThat(operations).containsExactly(3L, 2L, 1L);
        }
    }
}
