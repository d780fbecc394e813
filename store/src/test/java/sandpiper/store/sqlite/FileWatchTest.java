package sandpiper.store.sqlite;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

@Tag("sqlite")
class FileWatchTest {
    @TempDir Path folder;
    private Path file;

    @BeforeEach
    void make() throws Exception {
        file = folder.resolve("data.db");
        Files.write(file, new byte[10_000]);
    }

    private void noticed(ThrowingCallable done, String words) throws Throwable {
        try (var watch = new FileWatch(file)) {
            Thread.sleep(500);
            assertThatCode(watch::requireSound).doesNotThrowAnyException();
            done.call();
            long end = System.nanoTime() + Duration.ofSeconds(3).toNanos();
            while (System.nanoTime() < end) {
                try {
                    watch.requireSound();
                    Thread.sleep(20);
                } catch (RuntimeException _) {
                    break;
                }
            }
            assertThatThrownBy(watch::requireSound).hasMessageContaining(words);
        }
    }

    @Test
    void deletedReplacedAndCutFilesAreToldApart() throws Throwable {
        noticed(() -> Files.write(file, new byte[5_000]), "was cut from 10,000 to 5,000");
        noticed(
                () -> {
                    var other = Files.write(folder.resolve("other"), new byte[20_000]);
                    Files.move(other, file, StandardCopyOption.REPLACE_EXISTING);
                },
                "was replaced");
        noticed(() -> Files.delete(file), "was deleted");
    }

    @Test
    void aFileIsHeldUnderEachOfItsNames() throws Exception {
        var link = Files.createSymbolicLink(folder.resolve("link.db"), file);
        var other = Files.createLink(folder.resolve("other.db"), file);
        try (var hold = FileHold.take(file)) {
            assertThat(hold).isNotNull();
            for (var name : new Path[] {file, link, other}) {
                assertThatThrownBy(() -> FileHold.take(name).close())
                        .hasMessageContaining("in use by another service")
                        .hasMessageContaining("process " + ProcessHandle.current().pid());
            }
        }
        FileHold.take(other).close();
    }
}
