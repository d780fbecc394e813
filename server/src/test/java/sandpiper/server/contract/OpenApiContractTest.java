package sandpiper.server.contract;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import sandpiper.model.check.Definitions;
import sandpiper.server.json.JsonText;

/** A contract against a reviewed file, so that a change of it shows as a difference. */
class OpenApiContractTest {
    private static final Path PACKAGES = Path.of("../demo/packages");

    @Test
    void theBerthDeskIsDescribedAsReviewed() throws IOException {
        var files = new TreeMap<String, String>();
        try (var paths = Files.walk(PACKAGES)) {
            for (var path : paths.filter(path -> path.toString().endsWith(".yaml")).toList()) {
                files.put(PACKAGES.relativize(path).toString(), Files.readString(path));
            }
        }
        var release = Definitions.check(files).release().orElseThrow();
        var service = release.service("berth-desk", 1).orElseThrow();

        var contract =
                JsonText.writePretty(OpenApiContract.of(release, service, "http://127.0.0.1:8080"))
                        + "\n";

        var golden = Path.of("src/test/resources/berth-desk.openapi.json");
        if (Boolean.getBoolean("golden.write")) {
            Files.createDirectories(golden.getParent());
            Files.writeString(golden, contract);
        }
        assertThat(contract)
                .as("differs from %s; -Dgolden.write=true rewrites it", golden)
                .isEqualTo(Files.readString(golden));
    }
}
