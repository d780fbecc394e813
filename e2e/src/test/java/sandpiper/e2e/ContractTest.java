package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.client.ManageClient;
import sandpiper.model.shape.FileKind;
import sandpiper.model.shape.JsonSchemas;

/** Contracts in the hands of tools that nobody here wrote. */
@ExtendWith(Marina.class)
class ContractTest {
    @TempDir Path folder;

    private Path contract(String service) throws IOException {
        var file = folder.resolve(service + ".json");
        Files.writeString(
                file,
                Marina.get(
                                Marina.CONSULTANT,
                                "/manage/v1/contracts/" + service + "/v1/openapi.json")
                        .whole()
                        .body());
        return file;
    }

    @ParameterizedTest
    @ValueSource(strings = {"berth-desk", "vessel-registry", "manage"})
    void theLinterFindsNothing(String contract) throws Exception {
        var file =
                contract.equals("manage")
                        ? Marina.repository().resolve("console/src/api/manage.openapi.json")
                        : contract(contract);
        var said =
                Program.run(
                        Path.of("linter").toAbsolutePath(),
                        List.of(
                                "node",
                                "node_modules/@redocly/cli/bin/cli.js",
                                "lint",
                                "--config",
                                "redocly.yaml",
                                file.toString()));

        assertThat(said)
                .contains("Your API description is valid")
                .doesNotContain("generated", "[1]");
    }

    @Test
    void theGeneratorMakesAClientThatCompiles() throws Exception {
        var made = folder.resolve("made");
        Program.run(
                folder,
                List.of(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-jar",
                        Path.of("target/tools/openapi-generator.jar").toAbsolutePath().toString(),
                        "generate",
                        "-i",
                        contract("berth-desk").toString(),
                        "-g",
                        "java",
                        "--library",
                        "native",
                        "-o",
                        made.toString(),
                        "--additional-properties=openApiNullable=false,hideGenerationTimestamp=true,useJakartaEe=true"));
        var sources = new java.util.ArrayList<String>();
        try (var files = Files.walk(made.resolve("src/main/java"))) {
            files.filter(file -> file.toString().endsWith(".java"))
                    .forEach(file -> sources.add(file.toString()));
        }
        var said = new StringWriter();
        var options =
                List.of(
                        "-d",
                        folder.resolve("classes").toString(),
                        "-proc:none",
                        "-nowarn",
                        "-cp",
                        System.getProperty("java.class.path"));
        var compiler = ToolProvider.getSystemJavaCompiler();
        var files =
                compiler.getStandardFileManager(null, null, null)
                        .getJavaFileObjectsFromStrings(sources);

        boolean compiles = compiler.getTask(said, null, null, options, null, files).call();

        assertThat(compiles).as(said.toString()).isTrue();
        assertThat(sources).anyMatch(file -> file.endsWith("StayCreate.java"));
    }

    /** Run with -Dgolden.write=true to write the files anew after a change that is meant. */
    private static void assertGolden(Path file, String actual) throws IOException {
        if (Boolean.getBoolean("golden.write")) {
            Files.createDirectories(file.getParent());
            Files.writeString(file, actual);
        }
        assertThat(actual).as("differs from %s", file).isEqualTo(Files.readString(file));
    }

    @Test
    void theShippedSchemasAreThoseThatAreServed() throws IOException {
        for (var kind : FileKind.values()) {
            var served =
                    Marina.get(Marina.CONSULTANT, "/manage/v1/schemas/" + kind.id() + ".json")
                            .json();

            assertThat(served)
                    .isEqualTo(ManageClient.read(ManageClient.write(JsonSchemas.of(kind))));
            assertGolden(
                    Marina.repository().resolve("docs/schemas/" + kind.id() + ".json"),
                    ManageClient.writePretty(served) + "\n");
        }
    }

    @Test
    void theConsoleIsBuiltAgainstTheManageApiAsItIs() throws IOException {
        var served = Marina.get(Marina.CONSULTANT, "/manage/v1/openapi.json").json();

        assertGolden(
                Marina.repository().resolve("console/src/api/manage.openapi.json"),
                ManageClient.writePretty(served) + "\n");
    }
}
