package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.cli.Main;
import sandpiper.demo.Demo;

/** The command line as people start it, against the real service. */
@ExtendWith(Marina.class)
class CommandLineTest {
    private static final Path LAUNCHER = Path.of("..", "sandpiper").toAbsolutePath().normalize();

    private static final String HOME = System.getProperty("user.home");

    @TempDir Path folder;

    private record Ran(int code, String out) {}

    /** Commands run here as the launcher runs them; the one test that starts it is the last. */
    private Ran run(String... words) {
        var text = new StringWriter();
        int code = Main.run(new PrintWriter(text), words);
        return new Ran(code, text.toString());
    }

    /** A file of the test's own. */
    private String in(String name) {
        return folder.resolve(name).toString();
    }

    @BeforeEach
    void connect() throws Exception {
        connect(Marina.address());
        System.setProperty("user.home", folder.toString());
    }

    private void connect(String server) throws Exception {
        var file = folder.resolve(".sandpiper").resolve("connection");
        Files.createDirectories(file.getParent());
        Files.writeString(
                file, "server=%s\nuser=consultant\npassword=%s\n".formatted(server, Demo.PASSWORD));
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
    }

    @AfterEach
    void leave() {
        System.setProperty("user.home", HOME);
    }

    @Test
    void findsShowsCreatesAndChangesRecords() throws Exception {
        assertThat(
                        run(
                                "records",
                                "find",
                                "Berth",
                                "--filter",
                                "pier = \"N\" and maxLength > 11",
                                "--sort",
                                "-code",
                                "--fields",
                                "code,pier"))
                .satisfies(ran -> {
                    assertThat(ran.code()).isZero();
                    assertThat(ran.out()).contains("code  pier", "N-15  N", " of ");
                });
        assertThat(
                        run(
                                        "records",
                                        "create",
                                        "Owner",
                                        "code=OW-0950",
                                        "name=Liske Brack",
                                        "country=NL")
                                .code())
                .isZero();
        assertThat(run("records", "change", "Owner", "OW-0950", "phone=+31 20 555 010").out())
                .contains("+31 20 555 010");
        assertThat(run("records", "show", "Owner", "OW-0950", "--history").out())
                .contains("changed", "phone", "consultant");
        assertThat(run("records", "create", "Owner", "code=OW-0950", "nam=x"))
                .satisfies(ran -> {
                    assertThat(ran.code()).isEqualTo(1);
                    assertThat(ran.out())
                            .contains("nam: Owner has no field", "name: Name is required.");
                });
    }

    @Test
    void importsWhatItExportsAndTellsRefusedRows() throws Exception {
        assertThat(run("records", "export", "Tariff", "--out", in("tariffs.csv")).code()).isZero();
        assertThat(run("records", "import", "Tariff", in("tariffs.csv")).out())
                .contains("0 created, 25 changed or the same, 0 refused");
        Files.writeString(
                folder.resolve("piers.csv"),
                "code,name,powerCapacity\r\nZ,Zero pier,100\r\nY,,x\r\n");

        var ran = run("records", "import", "Pier", in("piers.csv"));

        assertThat(ran.code()).isEqualTo(1);
        assertThat(ran.out())
                .contains("1 created", "1 refused", "row 2: Power capacity must be a number");
        assertThat(
                        run(
                                        "records",
                                        "export",
                                        "Stay",
                                        "--as",
                                        "jsonl",
                                        "--filter",
                                        "number = \"ST-2026-000012\"")
                                .out())
                .contains("\"charges\":[");
    }

    @Test
    void givesAContractInEachForm() throws Exception {
        assertThat(run("contract", "berth-desk", "--as", "odata").out())
                .contains("<EntityType Name=\"Stay\">");
        assertThat(run("contract", "berth-desk", "--as", "jsonschema").out())
                .contains(
                        "https://json-schema.org/draft/2020-12/schema", "\"$defs\"", "StayCreate");
        assertThat(run("contract", "vessel-registry", "--as", "wsdl").out())
                .contains("<wsdl:definitions");
        assertThat(run("contract", "harbour-report", "--as", "odata").out())
                .contains("There is no service harbour-report v1 over OData");
    }

    @Test
    void managesUsersAndRolesAndShowsTraffic() throws Exception {
        Files.writeString(folder.resolve("secret"), "a-long-password\n");
        assertThat(
                        run(
                                        "users",
                                        "create",
                                        "ragna.t",
                                        "--role",
                                        "dock-master",
                                        "--password-file",
                                        in("secret"))
                                .out())
                .contains("created ragna.t");
        // Until she has chosen her own, it opens nothing.
        assertThat(Marina.get("ragna.t:a-long-password", "/manage/v1/status").status())
                .isEqualTo(403);
        run("users", "change", "ragna.t", "--password-file", in("secret"), "--keep-password");
        assertThat(Marina.get("ragna.t:a-long-password", "/manage/v1/status").status())
                .isEqualTo(200);
        assertThat(run("users", "change", "ragna.t", "--role", "dockmaster").out())
                .contains("There is no role \"dockmaster\". Did you mean dock-master?");
        run("users", "change", "ragna.t", "--disable");
        assertThat(run("users", "list").out()).containsPattern("ragna.t .*dock-master .*disabled");
        assertThat(run("users", "remove", "ragna.t").code()).isZero();
        assertThat(run("users", "log").out())
                .contains("user made", "user removed")
                .doesNotContain("a-long-password");

        Files.writeString(folder.resolve("auditor.json"), run("roles", "show", "auditor").out());
        assertThat(run("roles", "set", "auditor", "--file", in("auditor.json")).out())
                .contains("set auditor");
        assertThat(run("roles", "list").out()).containsPattern("auditor +audit +Pier v, Berth v");
        assertThat(run("roles", "remove", "clerk").out()).contains("is held by clerk");

        Marina.get("yard-tablet:sandpaper-and-varnish", "/api/yard/v1/jobs/NONE");
        assertThat(run("traffic", "yard").out()).containsPattern("yard v1 +jobs read +REST");
        assertThat(run("traffic", "yard", "--failed").out()).contains("There is no Work request");
    }

    @Test
    void pullsPushesComparesAndTellsTheStatus() throws Exception {
        assertThat(run("pull", in("packages")).out()).contains("wrote gullhaven/objects/stay.yaml");
        assertThat(run("pull", in("packages")).out()).contains("Nothing differs.");
        assertThat(run("check", in("packages")).code()).isZero();
        assertThat(run("push", in("packages")).out()).contains("The draft is in order");
        assertThat(run("diff").out()).contains("The draft is the same as the live release.");
        assertThat(run("release").out()).contains("The draft is the same as the live release.");
        assertThat(run("status").out()).contains("release ", "The draft is released.", "Stay");
        assertThat(run("contract", "berth-desk", "--out", in("desk.json")).code()).isZero();
        assertThat(Files.readString(folder.resolve("desk.json")))
                .contains("\"openapi\" : \"3.1.0\"");
        assertThat(run("contract", "berth-dsk"))
                .satisfies(ran -> {
                    assertThat(ran.code()).isEqualTo(1);
                    assertThat(ran.out()).contains("berth-desk v1");
                });
    }

    @Test
    void playsTheExamplesOfRequirements() throws Exception {
        run("pull", in("asked"));
        assertThat(run("check", in("asked"), "--examples"))
                .satisfies(ran -> {
                    assertThat(ran.code()).as(ran.out()).isZero();
                    assertThat(ran.out())
                            .contains("proved   R-09", "14 proved, 0 failing, 0 not yet proved.");
                });
        var file = folder.resolve("asked/gullhaven/requirements/marina.yaml");
        Files.writeString(
                file, Files.readString(file).replaceFirst("result: 72.00", "result: 73.00"));
        assertThat(run("check", in("asked"), "--examples"))
                .satisfies(ran -> {
                    assertThat(ran.code()).isEqualTo(1);
                    assertThat(ran.out())
                            .contains("failing  R-12", "The result should be 73.00, but is 72.");
                });
    }

    @Test
    void callsFunctionsAndShowsWhatCameOfThem() throws Exception {
        assertThat(run("call", "Stay.quote", "--with", "length=9", "--with", "nights=2").out())
                .matches("[0-9.]+\\R");
        assertThat(run("call", "Stay.quot"))
                .satisfies(ran -> {
                    assertThat(ran.code()).isEqualTo(1);
                    assertThat(ran.out()).contains("Did you mean quote?");
                });
        assertThat(run("call", "Stay.quote", "--with", "lenght=9").out()).contains("lenght");
        assertThat(run("call", "Stay.checkOut", "--on", "ST-2026-000001", "--on", "ST-1"))
                .satisfies(ran -> {
                    assertThat(ran.code()).isEqualTo(1);
                    assertThat(ran.out())
                            .contains("ST-2026-000001  refused", "ST-1            refused");
                });
        assertThat(failedRuns("Stay.checkOut"))
                .contains("Stay.quote", "Stay.checkOut", "ST-2026-000001");
        assertThat(run("events", "deliveries").code()).isZero();
        assertThat(run("webhooks", "list").out()).contains("bookkeeping", "StayEnded");
        assertThat(run("contract", "berth-desk", "--as", "asyncapi").out())
                .contains("\"asyncapi\" : \"3.");
    }

    /** Nobody waits for the log of what was refused: it may come a moment later. */
    private String failedRuns(String expected) throws InterruptedException {
        var out = "";
        for (int i = 0; i < 50 && !out.contains(expected); i++) {
            Thread.sleep(i == 0 ? 0 : 100);
            out = run("events", "runs", "--failed").out();
        }
        return out;
    }

    @Test
    void makesRotatesAndStopsClients() throws Exception {
        assertThat(run("clients", "create", "tug", "--grant", "berth-desk/berths/*").out())
                .contains("client tug", "secret ", "not shown again");
        assertThat(run("clients", "rotate", "tug", "--overlap-hours", "2").out())
                .contains("secret ");
        assertThat(run("clients", "list").out())
                .contains("berth-desk/berths/*", "never", "old secret right until");
        assertThat(run("clients", "disable", "tug").out()).contains("tug is disabled");
        assertThat(run("clients", "list").out()).contains("disabled");
        assertThat(run("clients", "remove", "tug").out()).contains("tug is removed");
        assertThat(run("clients", "enable", "tug").out()).contains("There is no client \"tug\"");
        assertThat(run("contract", "harbour-report", "--as", "wsdl").out())
                .contains("<wsdl:definitions");
    }

    @Test
    void theLauncherTakesItsConnectionFromTheEnvironment() throws Exception {
        var builder = new ProcessBuilder(LAUNCHER.toString(), "status").directory(folder.toFile());
        builder.redirectErrorStream(true).environment().put("SANDPIPER_SERVER", Marina.address());
        builder.environment().put("SANDPIPER_USER", "consultant");
        builder.environment().put("SANDPIPER_PASSWORD", Demo.PASSWORD);
        var process = builder.start();
        var out = new String(process.getInputStream().readAllBytes());

        assertThat(process.waitFor(1, TimeUnit.MINUTES)).isTrue();
        assertThat(process.exitValue()).as(out).isZero();
        assertThat(out).contains("release ", "Stay");
    }

    @Test
    void saysSoWhenNobodyAnswers() throws Exception {
        connect("http://127.0.0.1:9");

        var ran = run("status");

        assertThat(ran.code()).isEqualTo(1);
        assertThat(ran.out())
                .contains("No service answers at http://127.0.0.1:9")
                .doesNotContain("Exception");
    }
}
