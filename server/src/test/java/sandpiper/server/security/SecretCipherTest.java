package sandpiper.server.security;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class SecretCipherTest {
    @TempDir Path folder;

    @Test
    void whatIsSealedIsOpenedByTheSameKeyAlsoAfterARestart() {
        var file = folder.resolve("data.db.key");
        var sealed = new SecretCipher(file).seal("tide tables");

        assertThat(sealed).doesNotContain("tide");
        assertThat(new SecretCipher(file).open(sealed)).contains("tide tables");
        assertThat(new SecretCipher(file).seal("tide tables"))
                .as("nobody sees that two secrets are alike")
                .isNotEqualTo(sealed);
    }

    @Test
    void anotherKeyOpensNothing() {
        var sealed = new SecretCipher(folder.resolve("one.key")).seal("tide tables");

        assertThat(new SecretCipher(folder.resolve("other.key")).open(sealed)).isEmpty();
    }

    @Test
    void theKeyIsForTheOwnerOnly() throws Exception {
        var file = folder.resolve("data.db.key");
        new SecretCipher(file).seal("tide tables");

        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
                .isEqualTo("rw-------");
    }
}
