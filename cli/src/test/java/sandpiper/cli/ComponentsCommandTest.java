package sandpiper.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ComponentsCommandTest {
    private static final String BILL =
            """
            {"bomFormat": "CycloneDX", "components": [
              {"group": "sandpiper", "name": "sandpiper-model", "version": "0.1.0", "purl": "pkg:maven/sandpiper/sandpiper-model@0.1.0"},
              {"group": "org.example", "name": "rope", "version": "2.10.1", "purl": "pkg:maven/org.example/rope@2.10.1",
               "licenses": [{"license": {"id": "Apache-2.0"}}]},
              {"name": "knot", "version": "1.0.0-rc.2", "purl": "pkg:npm/knot@1.0.0-rc.2",
               "licenses": [{"expression": "(GPL-3.0-only OR MIT)"}]}
            ]}
            """;

    @TempDir Path folder;
    private Path bill;
    private final StringWriter said = new StringWriter();

    @BeforeEach
    void write() throws IOException {
        bill = Files.writeString(folder.resolve("bill.json"), BILL);
    }

    private int run(String... arguments) {
        said.getBuffer().setLength(0);
        var all = new ArrayList<>(List.of("components", "--bill", bill.toString()));
        all.addAll(List.of(arguments));
        return Main.commandLine("components")
                .setOut(new PrintWriter(said, true))
                .setErr(new PrintWriter(said, true))
                .execute(all.toArray(String[]::new));
    }

    private static String advisory(String id, String ecosystem, String name, String events) {
        return """
        {"id": "%s", "summary": "It comes loose", "affected": [
          {"package": {"ecosystem": "%s", "name": "%s"}, "ranges": [{"type": "ECOSYSTEM", "events": [%s]}]}]}
        """
                .formatted(id, ecosystem, name, events);
    }

    private int scan(String advisory) throws IOException {
        return run(
                "--advisories",
                Files.writeString(folder.resolve("advisory.json"), advisory).toString());
    }

    @Test
    void librariesOfOthersAreListed() {
        assertThat(run()).isZero();
        assertThat(said.toString())
                .contains("org.example:rope", "2.10.1", "knot", "GPL-3.0-only or MIT")
                .doesNotContain("sandpiper-model");
    }

    @Test
    void aVersionWithinARangeIsFoundAndOneBesideItIsNot() throws IOException {
        var from = "{\"introduced\": \"2.9\"}, {\"fixed\": \"%s\"}";
        assertThat(scan(advisory("A-1", "Maven", "org.example:rope", from.formatted("2.10.2"))))
                .isEqualTo(1);
        assertThat(said.toString()).contains("org.example:rope 2.10.1: A-1 It comes loose");
        assertThat(scan(advisory("A-1", "Maven", "org.example:rope", from.formatted("2.10.1"))))
                .isZero();
        assertThat(
                        scan(
                                advisory(
                                        "A-2",
                                        "Maven",
                                        "org.example:rope",
                                        "{\"introduced\": \"0\"}, {\"last_affected\":"
                                                + " \"2.10.1\"}")))
                .isEqualTo(1);
        assertThat(scan(advisory("A-3", "npm", "org.example:rope", "{\"introduced\": \"0\"}")))
                .isZero();
        assertThat(
                        scan(
                                advisory(
                                        "A-4",
                                        "npm",
                                        "knot",
                                        "{\"introduced\": \"0\"}, {\"fixed\": \"1.0.0\"}")))
                .as("a candidate comes before its release")
                .isEqualTo(1);
        assertThat(
                        run(
                                "--advisories",
                                folder.resolve("advisory.json").toString(),
                                "--except",
                                "A-4"))
                .isZero();
    }

    @Test
    void aZipArchiveAndAFolderAreReadToo() throws IOException {
        var all = advisory("A-5", "Maven", "org.example:rope", "{\"introduced\": \"0\"}");
        var zip = folder.resolve("all.zip");
        try (var out = new ZipOutputStream(Files.newOutputStream(zip))) {
            out.putNextEntry(new ZipEntry("A-5.json"));
            out.write(all.getBytes(java.nio.charset.StandardCharsets.UTF_8));
        }
        assertThat(run("--advisories", zip.toString())).isEqualTo(1);
        var inside = Files.createDirectory(folder.resolve("inside"));
        Files.writeString(inside.resolve("A-5.json"), "[" + all + "]");
        assertThat(run("--advisories", inside.toString())).isEqualTo(1);
    }

    @Test
    void whatIsNoAdvisoryIsToldWithItsPlace() throws IOException {
        assertThat(scan("no json")).isNotZero();
        assertThat(said.toString()).contains("advisory.json holds no JSON");
        assertThat(scan("{\"name\": \"x\"}")).isNotZero();
        assertThat(said.toString()).contains("it has no id");
    }

    @Test
    void oneOfSeveralLicencesIsEnough() {
        assertThat(run("--licences", "MIT", "Apache-2.0")).isZero();
        assertThat(run("--licences", "MIT")).isEqualTo(1);
        assertThat(said.toString())
                .contains("org.example:rope 2.10.1: licence Apache-2.0 is not among those allowed");
    }
}
