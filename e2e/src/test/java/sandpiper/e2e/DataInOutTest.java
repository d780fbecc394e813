package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The command line on packages that are not the marina's: from a folder to a release in one go, and
 * all data out of one service and into an empty one.
 */
class DataInOutTest {
    private static final String PACKAGE = "package: yard\nversion: 1\nlanguages: [en, de]\n";
    private static final String PLACE =
            """
            object: Place
            key: [area, spot]
            fields:
              area:   { type: text, length: 10, required: true }
              spot:   { type: integer, required: true }
              name:   { type: text, localised: true }
              inside: { type: reference, to: Place, inverse: rooms }
              rent:   { type: amount, currency: record }
              roomCount: { type: integer, formula: count(rooms) }
            removal: { retire: ask }
            """;
    private static final String JOB =
            """
            object: Job
            key: code
            numbering: { field: code, pattern: "J-{sequence:4}" }
            fields:
              code:  { type: text, length: 20 }
              where: { type: reference, to: Place }
              after: { type: reference, to: Job }
              seal:  { type: text, readOnly: true }
              hours: { type: decimal, formula: sum(steps.hours) }
            parts:
              steps:
                fields:
                  what:  { type: text, localised: true }
                  hours: { type: decimal }
            lifecycle:
              initial: Asked
              states: [Asked, Done]
              transitions: { finish: { from: Asked, to: Done } }
            rules:
              sealed: { on: change of state, then: 'set seal = "done"' }
            """;

    @TempDir static Path folder;

    private static Path packages;
    private static ServiceProcess from;
    private static ServiceProcess to;

    @BeforeAll
    static void start() throws Exception {
        packages = folder.resolve("packages");
        write("yard/package.yaml", PACKAGE);
        write("yard/objects/place.yaml", PLACE);
        write("yard/objects/job.yaml", JOB);
        from = ServiceProcess.start(folder.resolve("from.db"), Map.of());
        to = ServiceProcess.start(folder.resolve("to.db"), Map.of());
        for (var service : List.of(from, to)) {
            var ran = run(service, "release", packages.toString(), "--note", "First");
            assertThat(ran).contains("Changes:", "Release 1 is live.", "exit 0");
        }
    }

    @AfterAll
    static void stop() {
        from.close();
        to.close();
    }

    private static void write(String path, String text) throws Exception {
        var file = packages.resolve(path);
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
    }

    /** What a command prints, then its exit code. */
    private static String run(ServiceProcess service, String... words) {
        return CommandRun.of(service, words);
    }

    private static void done(ServiceProcess service, String... words) {
        assertThat(run(service, words)).endsWith("exit 0\n");
    }

    @Test
    void everythingComesOverAsItWas() throws Exception {
        done(
                from,
                "records",
                "create",
                "Place",
                "area=N",
                "spot=1",
                "name.en=Hall",
                "name.de=Halle");
        done(from, "records", "create", "Place", "area=N", "spot=3", "rent=5 USD");
        done(from, "records", "create", "Place", "area=N", "spot=2", "inside=N,3", "name=Later");
        done(from, "records", "change", "Place", "N,2", "inside=N,3", "name.de=Sp\u00e4ter");
        done(
                from,
                "records",
                "create",
                "Job",
                "where=N,1",
                "steps[1].what.de=S\u00e4gen",
                "steps[1].hours=1.5",
                "steps[2].hours=2");
        done(from, "records", "create", "Job", "after=J-0001");
        done(from, "records", "change", "Job", "J-0001", "after=J-0002");
        done(from, "records", "transition", "Job", "J-0001", "finish");
        done(from, "records", "retire", "Job", "J-0002", "--used");
        assertThat(run(from, "records", "show", "Job", "J-0001"))
                .contains("J-0002", "done", "3.50", "S\u00e4gen");
        assertThat(run(from, "records", "show", "Place", "N,2")).contains("Sp\u00e4ter", "N,3");

        var out = folder.resolve("out");
        assertThat(run(from, "records", "export", "--all", out.toString())).contains("exit 0");
        assertThat(run(to, "records", "import", out.toString(), "--whole", "--quiet"))
                .contains("exit 0");
        var again = folder.resolve("again");
        assertThat(run(to, "records", "export", "--all", again.toString())).contains("exit 0");
        assertThat(contents(again)).isEqualTo(contents(out));
    }

    /** The lines of each file, whatever their order. */
    private static Map<String, List<String>> contents(Path dir) throws Exception {
        var contents = new TreeMap<String, List<String>>();
        try (var files = Files.list(dir)) {
            for (var file : files.toList()) {
                contents.put(
                        file.getFileName().toString(),
                        Files.readAllLines(file).stream().sorted().toList());
            }
        }
        assertThat(contents).hasSizeGreaterThanOrEqualTo(2);
        return contents;
    }

    @Test
    void tablesCarryLineItemsAndLanguages() throws Exception {
        var csv = folder.resolve("jobs.csv");
        Files.writeString(
                csv,
                """
                code,steps.what.en,steps.what.de,steps.hours
                T-1,saw,s\u00e4gen,1
                T-1,nail,,2
                T-2,,hobeln,3
                """);
        assertThat(run(from, "records", "import", "Job", csv.toString(), "--quiet"))
                .contains("2 created", "exit 0");
        assertThat(run(from, "records", "show", "Job", "T-1"))
                .contains("saw", "s\u00e4gen", "nail", "3.00");
        var back = folder.resolve("back.csv");
        run(
                from,
                "records",
                "export",
                "Job",
                "--filter",
                "code = \"T-1\"",
                "--out",
                back.toString());
        assertThat(Files.readString(back)).contains("steps.what.de", "s\u00e4gen", "nail");
        assertThat(run(from, "records", "import", "Job", back.toString(), "--quiet"))
                .contains("0 created", "exit 0");
    }

    @Test
    void whatOthersUseIsRetiredOnlyWhenThatIsSaid() {
        run(from, "records", "create", "Place", "area=U", "spot=1");
        run(from, "records", "create", "Job", "code=U-1", "where=U,1");
        assertThat(run(from, "records", "retire", "Place", "U,1"))
                .contains("used by 1 Job", "--used", "exit 1");
        assertThat(run(from, "records", "retire", "Place", "U,1", "--used")).contains("exit 0");
        assertThat(run(from, "records", "restore", "Place", "U,1")).contains("exit 0");
        assertThat(run(from, "records", "find", "Place", "--filter", "area = \"U\""))
                .contains("1 of 1");
    }

    @Test
    void aRefusalIsSaidOnce() {
        assertThat(run(from, "records", "create", "Place", "area=R"))
                .containsOnlyOnce("is required")
                .contains("exit 1");
        assertThat(run(from, "records", "show", "Place", "R,9")).containsOnlyOnce("R,9");
    }

    @Test
    void aReleaseStopsAtErrorsAndAtWhatNeedsAYes() throws Exception {
        assertThat(run(to, "release", packages.toString()))
                .contains("The draft is the same as the live release.", "exit 0");
        write(
                "yard/objects/place.yaml",
                PLACE.replace("rent:   { type: amount", "rent:   { type: amont"));
        assertThat(run(to, "release", packages.toString()))
                .contains("place.yaml:8", "nothing was released", "exit 1");
        write(
                "yard/objects/place.yaml",
                PLACE.replace("  name:   { type: text, localised: true }\n", ""));
        run(to, "records", "create", "Place", "area=L", "spot=1", "name=Lost");
        assertThat(run(to, "push", packages.toString()))
                .contains("Data that would be taken away:", "exit 0");
        assertThat(run(to, "release", packages.toString()))
                .contains("Data that would be taken away:", "--accept-losses", "exit 1")
                .doesNotContain("is live.");
        assertThat(run(to, "release", packages.toString(), "--accept-losses"))
                .contains("is live.", "exit 0");
        write("yard/objects/place.yaml", PLACE);
    }
}
