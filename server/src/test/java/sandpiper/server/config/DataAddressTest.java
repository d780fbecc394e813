package sandpiper.server.config;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.engine.port.StorageException;

class DataAddressTest {
    @TempDir Path folder;

    @Test
    void aBackupIsNotPutIntoADatabaseButWhoWantsToIsToldHow() {
        assertThatThrownBy(() ->
                        DataRestoration.restore(
                                folder.resolve("backup.db"), "jdbc:postgresql://db1/marina"))
                .isInstanceOf(StorageException.class)
                .hasMessageContaining("pg_restore")
                .hasMessageContaining("sandpiper move");
    }

    @ParameterizedTest
    @ValueSource(strings = {"jdbc:mysql://db1/marina", "postgres://db1/marina", "jdbc:h2:marina"})
    void noFileIsMadeOfAnAddressThatIsNotKnown(String address) throws Exception {
        var backup = Files.createFile(folder.resolve("backup.db"));
        assertThatThrownBy(() -> DataRestoration.restore(backup, address))
                .hasMessageContaining("jdbc:postgresql://");
        assertThatThrownBy(
                        () -> DataMove.move(backup.toString(), address, null, (_, _, _, _) -> {}))
                .hasMessageContaining("jdbc:postgresql://");
        assertThat(Path.of("jdbc:mysql:")).doesNotExist();
    }
}
