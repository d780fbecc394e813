package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.port.StorageException;
import sandpiper.store.Restoration.Restored;

@Tag("sqlite")
class RestorationTest {
    private static final String BUOY =
            "object: Buoy\nkey: code\nfields: { code: { type: text, required: true } }\n";

    @TempDir Path folder;
    private Path backup;
    private Path data;

    @BeforeEach
    void backUp() throws IOException {
        data = folder.resolve("live/data.db");
        backup = folder.resolve("backup.db");
        Files.createDirectories(data.getParent());
        try (var marina = new Harness(data.getParent()).release(BUOY)) {
            marina.create("Buoy", "code", "B1");
            marina.engine.backUp(backup);
            marina.create("Buoy", "code", "B2");
        }
    }

    private Restored restore(Path from, Path to) {
        return Restoration.restore(from, to, Harness.CLOCK);
    }

    private static List<String> codes(Path file) throws IOException {
        var codes = new ArrayList<String>();
        Files.createDirectories(file.getParent());
        try (var marina = new Harness(file.getParent())) {
            codes.addAll(marina.keys("Buoy", "code != null"));
        }
        return codes;
    }

    @Test
    void aBackupComesInThePlaceOfWhatIsThereWhichIsKept() throws IOException {
        var restored = restore(backup, data);

        assertThat(restored.release()).isEqualTo(1);
        assertThat(restored.bytes()).isEqualTo(Files.size(backup));
        assertThat(codes(data)).containsExactly("B1");
        var before = Objects.requireNonNull(restored.before());
        assertThat(before.getFileName()).hasToString("data.db.before-20260501T100000Z");
        restore(before, folder.resolve("old/data.db"));
        assertThat(codes(folder.resolve("old/data.db"))).containsExactly("B1", "B2");
    }

    @Test
    void itMayGoIntoANewFile() throws IOException {
        var fresh = folder.resolve("new/place/data.db");

        assertThat(restore(backup, fresh).before()).isNull();
        assertThat(codes(fresh)).containsExactly("B1");
    }

    @Test
    void aDataFileOfAStoppedServiceWillDoAndLeavesNothingBesideTheNewOne() throws IOException {
        var fresh = folder.resolve("fresh/data.db");
        restore(data, fresh);
        try (var files = Files.list(fresh.getParent())) {
            assertThat(files).containsExactly(fresh);
        }
        assertThat(codes(fresh)).containsExactly("B1", "B2");
    }

    @Test
    void aFileWhoseChangesStandInItsLogIsNoBackup() throws IOException {
        Files.writeString(folder.resolve("backup.db-wal"), "changes");
        assertThatThrownBy(() -> restore(backup, folder.resolve("new.db")))
                .isInstanceOf(StorageException.class)
                .hasMessageContaining("not a backup");
    }

    @Test
    void whatStoodInTheLogOfTheOldFileDoesNotComeToTheNewOne() throws Exception {
        // A service that was killed leaves its log.
        var killed = folder.resolve("killed/data.db");
        Files.createDirectories(killed.getParent());
        try (var marina = new Harness(data.getParent())) {
            marina.create("Buoy", "code", "B3");
            for (var end : List.of("", "-wal", "-shm")) {
                if (Files.exists(Path.of(data + end))) {
                    Files.copy(Path.of(data + end), Path.of(killed + end));
                }
            }
        }
        assertThat(Path.of(killed + "-wal")).isNotEmptyFile();

        var restored = restore(backup, killed);

        assertThat(Path.of(killed + "-wal")).doesNotExist();
        assertThat(codes(killed)).containsExactly("B1");
        restore(Objects.requireNonNull(restored.before()), folder.resolve("old/data.db"));
        assertThat(codes(folder.resolve("old/data.db"))).containsExactly("B1", "B2", "B3");
    }

    private void assertRefused(Path from, String why) throws IOException {
        var before = Files.readAllBytes(data);
        assertThatThrownBy(() -> restore(from, data))
                .isInstanceOf(StorageException.class)
                .hasMessageContaining(why);
        assertThat(Files.readAllBytes(data)).isEqualTo(before);
        try (var files = Files.list(data.getParent())) {
            assertThat(files.map(file -> file.getFileName().toString()))
                    .doesNotContain("data.db.restoring");
        }
    }

    @Test
    void whatIsNoBackupIsRefusedAndChangesNothing() throws Exception {
        assertRefused(folder.resolve("nowhere.db"), "There is no file");
        assertRefused(data, "is the data file itself");
        assertRefused(
                Files.writeString(folder.resolve("text.db"), "Not a database, but long enough.\n"),
                "is no data file of Sandpiper");
        var other = folder.resolve("other.db");
        try (var connection = DriverManager.getConnection("jdbc:sqlite:" + other);
                var statement = connection.createStatement()) {
            statement.execute("create table note (text text)");
        }
        assertRefused(other, "is no data file of Sandpiper");
        var newer = folder.resolve("newer.db");
        Files.copy(backup, newer);
        try (var connection = DriverManager.getConnection("jdbc:sqlite:" + newer);
                var statement = connection.createStatement()) {
            statement.execute("pragma user_version = 9999");
        }
        assertRefused(newer, "written by a newer version");
        var half = Files.readAllBytes(backup);
        assertRefused(
                Files.write(folder.resolve("half.db"), Arrays.copyOf(half, half.length / 2)),
                "damaged");
    }

    @Test
    void dataThatAServiceHasOpenStaysAsItIs() throws IOException {
        try (var marina = new Harness(data.getParent())) {
            assertThatThrownBy(() -> restore(backup, data)).isInstanceOf(StorageException.class);
            assertThat(marina.keys("Buoy", "code != null")).containsExactly("B1", "B2");
        }
    }
}
