package sandpiper.store.sqlite;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.sqlite.SQLiteDataSource;
import sandpiper.engine.port.OverloadedException;

@Tag("sqlite")
class ReaderPoolTest {
    @TempDir Path folder;

    private ReaderPool readers;

    @BeforeEach
    void open() {
        var source = new SQLiteDataSource();
        source.setUrl("jdbc:sqlite:" + folder.resolve("data.db"));
        readers = new ReaderPool(source, 2, Duration.ofMillis(100));
    }

    @Test
    void theOneUsedLastIsUsedNext() throws SQLException {
        var first = readers.take();
        var second = readers.take();
        readers.give(first);
        readers.give(second);

        assertThat(readers.take()).isSameAs(second);
        assertThat(readers.take()).isSameAs(first);
        readers.close();
    }

    @Test
    void whoComesWhenAllAreTakenWaitsForOneAndNotForEver() throws Exception {
        var taken = readers.take();
        readers.take();
        assertThatThrownBy(readers::take)
                .isInstanceOf(OverloadedException.class)
                .hasMessageContaining("try again");

        var waiting = CompletableFuture.supplyAsync(this::take);
        readers.give(taken);
        assertThat(waiting.get(10, TimeUnit.SECONDS)).isSameAs(taken);
    }

    private ReaderPool.Reader take() {
        try {
            return readers.take();
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void theyOnlyRead() throws SQLException {
        var reader = readers.take();

        try (var statement = reader.connection().createStatement()) {
            assertThatThrownBy(() -> statement.execute("create table pier (code text)"))
                    .hasMessageContaining("readonly");
        }
    }

    @Test
    void oneThatIsGivenBackAfterTheEndIsClosed() throws SQLException {
        var free = readers.take();
        var taken = readers.take();
        readers.give(free);
        readers.close();

        assertThat(free.connection().isClosed()).isTrue();
        assertThat(taken.connection().isClosed()).isFalse();
        readers.give(taken);
        assertThat(taken.connection().isClosed()).isTrue();
    }
}
