package sandpiper.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/** Commands print; where things are asked for is the client's to know. */
class AddressesTest {
    @Test
    void noCommandKnowsAnAddressOfTheManageApi() throws IOException {
        try (var files = Files.walk(Path.of("src/main/java"))) {
            for (var file : files.filter(path -> path.toString().endsWith(".java")).toList()) {
                assertThat(Files.readString(file)).as("%s", file).doesNotContain("\"/manage/");
            }
        }
    }
}
