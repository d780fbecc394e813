package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.cli.Main;
import sandpiper.client.AccessCalls;

/**
 * Packages are made on one instance and run on another that takes nothing but packages, signed by a
 * key it trusts; what does not fit there changes nothing.
 */
class MoveJourneyTest {
    private static final String SHIP =
            """
            object: Ship
            key: code
            fields:
              code: { type: text, required: true }
              beam: { type: decimal, scale: 1 }
              flag: { type: text }
            """;
    private static final String BERTHED =
            """
            extend: Ship
            fields:
              wide: { type: boolean, formula: beam > 4 }
            """;

    private static final String SERVICE =
            """
            service: fleet
            version: 1
            resources:
              ships:
                object: Ship
                create: { fields: [code, beam] }
                read: { fields: [code, beam] }
            """;
    private static final String REQUIREMENTS =
            """
            requirements:
              R1:
                text: Ships of any beam are kept.
                examples:
                  wide:
                    when: { create: Ship, values: { code: W, beam: 30 } }
                    then: { values: { wide: true } }
            """;
    private static final String NARROW =
            """
            checks:
              - name: narrow
                that: beam = null or beam < 20
                say: "{beam} metres are too wide."
                at: beam
            """;

    @TempDir private Path folder;
    private ServiceProcess development;
    private ServiceProcess production;

    @BeforeEach
    void begin() throws IOException {
        var key = folder.resolve("packages.key");
        var made = run("signing-key", key.toString());
        var fingerprint = made.replaceAll("(?s).*fingerprint ([0-9a-f]+)\\..*", "$1");
        assertThat(fingerprint).matches("[0-9a-f]{16}");
        development =
                ServiceProcess.start(
                        folder.resolve("development.db"),
                        Map.of(
                                "SANDPIPER_INSTANCE_NAME",
                                "development",
                                "SANDPIPER_PACKAGES_SIGNING_KEY",
                                key.toString()));
        production =
                ServiceProcess.start(
                        folder.resolve("production.db"),
                        Map.of(
                                "SANDPIPER_INSTANCE_NAME",
                                "production",
                                "SANDPIPER_INSTANCE_COLOUR",
                                "#b3261e",
                                "SANDPIPER_INSTANCE_ACCEPTS",
                                "packages",
                                "SANDPIPER_PACKAGES_TRUSTED",
                                fingerprint,
                                "SANDPIPER_RECORDING_BYTES",
                                "1MB"));
        write("fleet/package.yaml", "package: fleet\nversion: 1.0\nsealed: true\n");
        write("fleet/objects/ship.yaml", SHIP);
        write("yard/package.yaml", "package: yard\nversion: 0.1\ndepends: [fleet]\n");
        write("yard/extensions/ship.yaml", BERTHED);
    }

    @AfterEach
    void end() {
        development.close();
        production.close();
    }

    private void write(String path, String text) throws IOException {
        var file = folder.resolve("packages").resolve(path);
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
    }

    /** A command that asks no service. */
    private static String run(String... words) {
        var said = new java.io.StringWriter();
        int code = Main.run(new java.io.PrintWriter(said, true), words);
        return "%sexit %d".formatted(said, code);
    }

    private String packages() {
        return folder.resolve("packages").toString();
    }

    private String file(String name) {
        return folder.resolve(name).toString();
    }

    private void releaseAndPack(String more) throws IOException {
        assertThat(
                        CommandRun.of(
                                development,
                                "release",
                                packages(),
                                "--accept-losses",
                                "--accept-failing"))
                .contains("is live.");
        for (var name : new String[] {"fleet", "yard"}) {
            Files.deleteIfExists(folder.resolve(name + more));
            assertThat(
                            CommandRun.of(
                                    development,
                                    "pack",
                                    "--live",
                                    name,
                                    "--out",
                                    file(name + more)))
                    .contains("signed with key", "exit 0");
        }
    }

    @Test
    void packagesGoFromDevelopmentToProductionAndBackAgain() throws Exception {
        releaseAndPack("-1.zip");

        // Nothing is made in production, and nothing comes in that it does not know.
        assertThat(CommandRun.of(production, "push", packages()))
                .contains("The instance production takes packages only", "exit 1");
        assertThat(CommandRun.of(production, "unpack", file("yard-1.zip")))
                .contains("fleet 1.0 is needed and is not here; unpack it first.", "exit 1");
        assertThat(run("pack", packages() + "/fleet", "--out", file("unsigned.zip")))
                .contains("fleet 1.0, 2 files", "not signed", "exit 0");
        assertThat(CommandRun.of(production, "unpack", file("unsigned.zip")))
                .contains("The package is not signed", "Nothing was taken in.", "exit 1");
        var altered = Files.readAllBytes(folder.resolve("fleet-1.zip"));
        var text = new String(altered, java.nio.charset.StandardCharsets.ISO_8859_1);
        Files.write(
                folder.resolve("altered.zip"),
                text.replace("scale: 1", "scale: 2")
                        .getBytes(java.nio.charset.StandardCharsets.ISO_8859_1));
        assertThat(CommandRun.of(production, "unpack", file("altered.zip")))
                .contains("Nothing was taken in.", "exit 1");
        assertThat(CommandRun.of(production, "unpack", packages() + "/fleet/package.yaml"))
                .contains("no packed package", "exit 1");
        assertThat(CommandRun.of(production, "unpack", file("nowhere.zip")))
                .contains("There is no file", "exit 1");
        assertThat(production.client().draft().draft().files()).isEmpty();

        assertThat(CommandRun.of(production, "unpack", file("fleet-1.zip")))
                .contains(
                        "fleet 1.0, signed with key", "added    fleet/objects/ship.yaml", "exit 0");
        assertThat(CommandRun.of(production, "unpack", file("yard-1.zip"))).contains("exit 0");
        assertThat(CommandRun.of(production, "release")).contains("Release 1 is live.");
        assertThat(production.client().get("/manage/v1/draft").path("sealed").toString())
                .isEqualTo("[\"fleet\",\"yard\"]");
        assertThat(development.client().get("/manage/v1/draft").path("sealed").toString())
                .isEqualTo("[\"fleet\"]");
        assertThat(CommandRun.of(production, "packages"))
                .contains("fleet", "1.0", "development, release 1", "yard");
        assertThat(CommandRun.of(development, "packages")).contains("made here");
        assertThat(
                        CommandRun.of(
                                production,
                                "records",
                                "create",
                                "Ship",
                                "code=S1",
                                "beam=5",
                                "flag=NL"))
                .contains("exit 0");

        // The same release gives the same bytes; the next one of a delivered package must fit.
        assertThat(
                        CommandRun.of(
                                development, "pack", "--live", "fleet", "--out", file("again.zip")))
                .contains("exit 0");
        assertThat(folder.resolve("again.zip"))
                .hasSameBinaryContentAs(folder.resolve("fleet-1.zip"));
        write("fleet/package.yaml", "package: fleet\nversion: 1.1\nsealed: true\n");
        write("fleet/objects/ship.yaml", SHIP.replace("beam:", "width:"));
        write("yard/extensions/ship.yaml", BERTHED.replace("beam", "width"));
        releaseAndPack("-2.zip");
        assertThat(CommandRun.of(production, "unpack", file("fleet-2.zip")))
                .contains("yard/extensions/ship.yaml:3", "Nothing was taken in.", "exit 1");
        assertThat(CommandRun.of(production, "unpack", file("yard-2.zip")))
                .contains("It was made beside fleet 1.1, and here is 1.0", "exit 1");
        assertThat(CommandRun.of(production, "diff")).contains("same as the live release");

        // One that fits, with data in between, and back again.
        write("fleet/objects/ship.yaml", SHIP.replace("  flag: { type: text }\n", ""));
        write("yard/extensions/ship.yaml", BERTHED);
        releaseAndPack("-3.zip");
        assertThat(CommandRun.of(production, "unpack", file("fleet-3.zip")))
                .contains(
                        "fleet 1.1 in the place of 1.0",
                        "Its value in 1 record is kept aside for 30 days",
                        "exit 0");
        assertThat(CommandRun.of(production, "release", "--accept-losses")).contains("Release 2");
        assertThat(CommandRun.of(production, "packages")).contains("1.1", "development, release 3");
        assertThat(CommandRun.of(production, "take-back", "1")).contains("Release 3 is live");
        assertThat(CommandRun.of(production, "records", "show", "Ship", "S1")).contains("NL");
    }

    /** Calls of a client, to be recorded and to be answered throughout. */
    private int call(HttpClient http, String credentials, String code, int beam) throws Exception {
        var request =
                HttpRequest.newBuilder(URI.create(production.address() + "/api/fleet/v1/ships"))
                        .header("Authorization", BasicSignIn.as(credentials))
                        .header("Content-Type", "application/json")
                        .POST(
                                HttpRequest.BodyPublishers.ofString(
                                        "{\"code\": \"%s\", \"beam\": %d}".formatted(code, beam)))
                        .build();
        return http.send(request, HttpResponse.BodyHandlers.discarding()).statusCode();
    }

    private void moved(String more) throws IOException {
        releaseAndPack(more);
        assertThat(CommandRun.of(production, "unpack", file("fleet" + more))).contains("exit 0");
    }

    @Test
    void whatComesIsRehearsedOnTheDataThereIsWhileItIsServed() throws Exception {
        write("fleet/services/fleet.yaml", SERVICE);
        write("yard/requirements/r.yaml", REQUIREMENTS);
        releaseAndPack("-1.zip");
        for (var name : new String[] {"fleet", "yard"}) {
            assertThat(CommandRun.of(production, "unpack", file(name + "-1.zip")))
                    .contains("exit 0");
        }
        assertThat(CommandRun.of(production, "release")).contains("Release 1 is live.");
        CommandRun.of(production, "records", "create", "Ship", "code=S1", "beam=5", "flag=NL");
        var credentials =
                "port:"
                        + production
                                .client()
                                .access()
                                .createClient(
                                        new AccessCalls.NewClient(
                                                "port", List.of("fleet/*/*"), false, 100_000, null))
                                .value()
                                .secret();
        var done = new AtomicBoolean();
        var answers = new ArrayList<Integer>();
        try (var http = HttpClient.newHttpClient();
                var others = Executors.newSingleThreadExecutor()) {
            assertThat(call(http, credentials, "WIDE", 25)).isEqualTo(201);
            assertThat(call(http, credentials, "SMALL", 3)).isEqualTo(201);
            var working =
                    others.submit(() -> {
                        for (int i = 0; !done.get(); i++) {
                            // All of them are replayed.
                            Thread.sleep(40);
                            answers.add(call(http, credentials, "L" + i, 2));
                        }
                        return true;
                    });
            try {
                write(
                        "fleet/objects/ship.yaml",
                        SHIP.replace("  flag: { type: text }\n", "") + NARROW);
                moved("-2.zip");
                assertThat(CommandRun.of(production, "rehearse"))
                        .contains(
                                "R1, Wide: It is refused: 30 metres are too wide.",
                                "1 of ",
                                "fleet v1 ships create, REST",
                                "-> 422 25 metres are too wide.",
                                "exit 1");

                write("fleet/objects/ship.yaml", SHIP.replace("  flag: { type: text }\n", ""));
                moved("-3.zip");
                assertThat(CommandRun.of(production, "rehearse"))
                        .contains("all are answered alike", "exit 0");
                assertThat(CommandRun.of(production, "release", "--accept-losses"))
                        .contains("Release 2 is live.");
                assertThat(CommandRun.of(production, "take-back", "1"))
                        .contains("Release 3 is live");
            } finally {
                done.set(true);
            }
            assertThat(working.get()).isTrue();
        }
        assertThat(answers).isNotEmpty().containsOnly(201);
        assertThat(CommandRun.of(production, "records", "show", "Ship", "S1")).contains("NL");
    }

    @Test
    void aBackupIsPutBackOnlyWhereNoServiceRuns() throws Exception {
        assertThat(CommandRun.of(development, "release", packages())).contains("is live.");
        CommandRun.of(development, "records", "create", "Ship", "code=S1");
        assertThat(CommandRun.of(development, "backup", file("backup.db"))).contains("exit 0");
        CommandRun.of(development, "records", "create", "Ship", "code=S2");
        var data = file("development.db");
        assertThat(run("restore", file("backup.db"), "--data", data)).contains("exit 1");
        assertThat(run("restore", packages() + "/fleet/package.yaml", "--data", data))
                .contains("is no data file of Sandpiper", "exit 1");
        assertThat(CommandRun.of(development, "records", "find", "Ship")).contains("S1", "S2");

        development.kill();
        assertThat(run("restore", file("backup.db"), "--data", data))
                .contains("release 1", "What was there is kept as", "exit 0");
        development = ServiceProcess.start(Path.of(data), Map.of());
        assertThat(CommandRun.of(development, "records", "find", "Ship"))
                .contains("S1")
                .doesNotContain("S2");
    }
}
