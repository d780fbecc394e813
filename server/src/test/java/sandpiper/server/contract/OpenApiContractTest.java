package sandpiper.server.contract;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.server.json.Bounds;

/** A contract against a reviewed file, so that a change of it shows as a difference. */
class OpenApiContractTest {
    private static final Bounds BOUNDS = new Bounds(5 << 20, 50, 500);

    private static final Path PACKAGES = Path.of("../demo/packages");

    private static Release marina() throws IOException {
        var files = new TreeMap<String, String>();
        try (var paths = Files.walk(PACKAGES)) {
            for (var path : paths.filter(Files::isRegularFile).toList()) {
                files.put(PACKAGES.relativize(path).toString(), Files.readString(path));
            }
        }
        return Definitions.check(files).release().orElseThrow();
    }

    @Test
    void everyServiceHasASchemaWithoutLooseEnds() throws IOException {
        var release = marina();
        for (var service : release.services()) {
            var schema =
                    ContractText.of(
                            ResourceSchemas.of(release, service, "http://localhost", BOUNDS));

            assertThat(schema)
                    .contains("\"$schema\" : \"https://json-schema.org/draft/2020-12/schema\"")
                    .doesNotContain("#/components/");
            var references = Pattern.compile("\"#/\\$defs/([A-Za-z]+)\"").matcher(schema);
            assertThat(references.results().map(one -> one.group(1)).distinct())
                    .as(service.titled())
                    .isNotEmpty()
                    .allSatisfy(name -> assertThat(schema).contains("\"" + name + "\" : {"));
        }
    }

    @Test
    void theBerthDeskIsDescribedAsReviewed() throws IOException {
        var release = marina();
        var service = release.service("berth-desk", 1).orElseThrow();

        var contract =
                ContractText.of(
                                OpenApiContract.of(
                                        release, service, "http://127.0.0.1:8080", BOUNDS))
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
