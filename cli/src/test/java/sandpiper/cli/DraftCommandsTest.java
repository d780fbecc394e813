package sandpiper.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** From files to what is live, and looking at what happens: what is asked, said and ended with. */
class DraftCommandsTest {
    private static final String SAME = "{\"files\": [], \"changes\": [], \"diagnostics\": []}";

    private static final String LOSING =
            """
            {"files": [{"path": "a"}], "diagnostics": [], "obstacles": [],
             "changes": ["Job: the field size is removed."],
             "losses": ["12 sizes."], "breaks": ["desk v1: size is gone."]}
            """;

    @TempDir Path folder;
    private FakeService service;
    private Path packages;

    @BeforeEach
    void start() throws IOException {
        service = new FakeService(folder);
        packages = folder.resolve("yard");
        Files.createDirectories(packages.resolve("objects"));
        Files.writeString(packages.resolve("package.yaml"), "package: yard\nversion: 1.0\n");
        Files.writeString(
                packages.resolve("objects/job.yaml"),
                "object: Job\nkey: code\nfields:\n  code: { type: text }\n");
    }

    @AfterEach
    void stop() {
        service.close();
    }

    private void pushes(String answer) {
        service.answering("POST /manage/v1/draft/push", answer);
    }

    private void previews(String answer) {
        service.answering("GET /manage/v1/releases/preview", answer);
    }

    @Nested
    class Push {
        @Test
        void sendsTheFilesByTheirPathsAndTellsWhatIsAnother() {
            pushes("{\"added\": [\"yard/objects/job.yaml\"], \"diagnostics\": []}");
            previews(SAME);

            var outcome = service.run("push", packages.toString());

            assertThat(outcome.code()).as(outcome.out()).isZero();
            assertThat(service.asked().getFirst().json().path("files").propertyNames())
                    .containsExactlyInAnyOrder("yard/package.yaml", "yard/objects/job.yaml");
            assertThat(outcome.lines())
                    .containsExactly(
                            "added    yard/objects/job.yaml",
                            "The draft is in order; \"sandpiper release\" makes it live.");
        }

        @Test
        void endsWithOneWhenTheDraftHasErrors() {
            pushes(
                    """
                    {"diagnostics": [
                      {"file": "yard/objects/job.yaml", "line": 3, "column": 1,
                       "severity": "ERROR", "code": "SP3002", "message": "No."},
                      {"file": "yard/objects/job.yaml", "line": 4, "column": 1,
                       "severity": "WARNING", "code": "SP3003", "message": "Hm."}]}
                    """);

            var outcome = service.run("push", packages.toString());

            assertThat(outcome.code()).isEqualTo(1);
            assertThat(outcome.lines())
                    .contains("yard/objects/job.yaml:3:1: SP3002 No.")
                    .endsWith("The draft is kept, but has 1 error.");
        }

        @Test
        void saysWhatTheDataSaysToIt() {
            pushes("{\"diagnostics\": []}");
            previews(LOSING);

            assertThat(service.run("push", packages.toString()).lines())
                    .contains("Data that would be taken away:", "- 12 sizes.")
                    .endsWith(
                            "The draft is in order by itself, but see above before it is"
                                    + " released.");
        }
    }

    @Nested
    class Diff {
        @Test
        void tellsWhatChangesAndWhatIsLost() {
            previews(LOSING);

            var outcome = service.run("diff");

            assertThat(outcome.code()).isZero();
            assertThat(outcome.lines())
                    .containsExactly(
                            "Changes:",
                            "- Job: the field size is removed.",
                            "Data that would be taken away:",
                            "- 12 sizes.",
                            "Contracts that would break:",
                            "- desk v1: size is gone.");
        }

        @Test
        void tellsWhenNothingDiffersOrOnlyText() {
            previews(SAME);
            assertThat(service.run("diff").lines())
                    .containsExactly("The draft is the same as the live release.");

            previews(
                    "{\"files\": [{\"path\": \"a\"}, {\"path\": \"b\"}], \"changes\": [],"
                            + " \"diagnostics\": []}");
            assertThat(service.run("diff").lines())
                    .containsExactly("2 files differ in their text only.");
        }

        @Test
        void endsWithOneWhenTheDataStandsInTheWay() {
            previews(
                    "{\"files\": [{\"path\": \"a\"}], \"changes\": [], \"obstacles\": [\"Two jobs"
                            + " share J1.\"]}");

            var outcome = service.run("diff");

            assertThat(outcome.code()).isEqualTo(1);
            assertThat(outcome.lines()).contains("In the way:", "- Two jobs share J1.");
        }
    }

    @Nested
    class Release {
        private void releases() {
            service.answering(
                    "POST /manage/v1/releases", "{\"number\": 4, \"changes\": [\"Job is new.\"]}");
        }

        @Test
        void makesTheDraftLiveWithWhatIsSaidOfIt() {
            releases();

            assertThat(service.run("release", "--note", "Jobs", "--accept-losses").lines())
                    .containsExactly("Release 4 is live.", "- Job is new.");
            assertThat(service.last().json().path("note").asString()).isEqualTo("Jobs");
            assertThat(service.last().json().path("acceptLosses").asBoolean()).isTrue();
            assertThat(service.last().json().path("acceptBreaks").asBoolean()).isFalse();
        }

        @Test
        void ofAFolderStopsAtErrors() {
            pushes("{\"diagnostics\": [{\"severity\": \"ERROR\", \"file\": \"f\"}]}");

            var outcome = service.run("release", packages.toString());

            assertThat(outcome.code()).isEqualTo(1);
            assertThat(outcome.lines()).endsWith("The draft has 1 error; nothing was released.");
            assertThat(service.asked()).hasSize(1);
        }

        @Test
        void ofAFolderStopsAtWhatNeedsAYesAndNamesTheOptions() {
            pushes("{\"diagnostics\": []}");
            previews(LOSING);

            var outcome = service.run("release", packages.toString(), "--accept-losses");

            assertThat(outcome.code()).isEqualTo(1);
            assertThat(outcome.lines())
                    .endsWith(
                            "Nothing was released. To go on all the same, say so:"
                                    + " --accept-breaks.");
        }

        @Test
        void ofAFolderGoesOnWhenAllIsSaid() {
            pushes("{\"diagnostics\": []}");
            previews(LOSING);
            releases();

            var outcome =
                    service.run(
                            "release", packages.toString(), "--accept-losses", "--accept-breaks");

            assertThat(outcome.code()).isZero();
            assertThat(outcome.lines()).endsWith("Release 4 is live.");
        }

        @Test
        void ofAFolderThatIsLiveAlreadyDoesNothing() {
            pushes("{\"diagnostics\": []}");
            previews(SAME);

            assertThat(service.run("release", packages.toString()).code()).isZero();
            assertThat(service.last().path()).isEqualTo("/manage/v1/releases/preview");
        }
    }

    @Nested
    class TakeBack {
        private static final String AT = "/manage/v1/releases/2/take-back";

        private void answers(String preview) {
            service.answering("GET " + AT, preview);
            service.answering("POST " + AT, "{\"number\": 5, \"changes\": []}");
        }

        @Test
        void tellsFirstAndStopsAtWhatNeedsAYes() {
            answers(LOSING);

            var outcome = service.run("take-back", "2");

            assertThat(outcome.code()).isEqualTo(1);
            assertThat(outcome.lines())
                    .contains("- 12 sizes.")
                    .endsWith(
                            "Nothing was released. To go on all the same, say so: --accept-losses"
                                    + " --accept-breaks.");
        }

        @Test
        void goesBackWhenAllIsSaid() {
            answers(LOSING);

            var outcome =
                    service.run(
                            "take-back",
                            "2",
                            "--note",
                            "Wrong",
                            "--accept-losses",
                            "--accept-breaks",
                            "--forget");

            assertThat(outcome.code()).isZero();
            assertThat(outcome.lines()).endsWith("Release 5 is live, with what release 2 had.");
            assertThat(service.last().json().path("note").asString()).isEqualTo("Wrong");
            assertThat(service.last().json().path("forget").asBoolean()).isTrue();
        }

        @Test
        void onlyTellsWhenThatIsWanted() {
            answers(SAME);

            var outcome = service.run("take-back", "2", "--dry-run");

            assertThat(outcome.code()).isZero();
            assertThat(outcome.lines())
                    .containsExactly("Release 2 is the same as the live release.");
            assertThat(service.asked()).hasSize(1);
        }
    }

    @Nested
    class Rehearse {
        private static final String DONE =
                """
                {"stage": "%s", "over": %s, "release": 3, "bytes": 4194304, "copyMillis": 20,
                 "releaseMillis": 1500, "formulaMillis": 640, "formulas": ["Job.total"],
                 "failing": [%s], "differing": [], "message": %s,
                 "preview": {"diagnostics": [], "files": [{"path": "a"}], "changes": ["Job grows."],
                   "losses": [], "breaks": [], "obstacles": []}}
                """;

        @Test
        void waitsForItsEndAndTellsHowLongTheReleaseTakes() {
            service.answering(
                    "POST /manage/v1/rehearsal", DONE.formatted("copying", false, "", "null"));
            service.answering(
                    "GET /manage/v1/rehearsal",
                    "{\"last\": %s}".formatted(DONE.formatted("done", true, "", "null")));

            var outcome = service.run("rehearse");

            assertThat(outcome.code()).isZero();
            assertThat(outcome.lines())
                    .containsExactly(
                            "On a copy of release 3, 4 MB, made in 20 ms:",
                            "Changes:",
                            "- Job grows.",
                            "The release takes 1.5 s, in which nobody can write.",
                            "Afterwards a formula is worked out anew for all records, in 640 ms,"
                                    + " while requests are served: Job.total.");
        }

        @Test
        void endsWithOneWhenExamplesFailOrItWouldBeRefused() {
            service.answering(
                    "POST /manage/v1/rehearsal",
                    DONE.formatted(
                            "done",
                            true,
                            "{\"requirement\": \"R1\", \"label\": \"Free\", \"problems\":"
                                    + " [\"No.\"]}",
                            "null"));
            var failing = service.run("rehearse");
            assertThat(failing.code()).isEqualTo(1);
            assertThat(failing.lines()).endsWith("Examples that do not hold:", "- R1, Free: No.");

            service.answering(
                    "POST /manage/v1/rehearsal",
                    DONE.formatted("refused", true, "", "\"The data stands in the way.\""));
            var refused = service.run("rehearse");
            assertThat(refused.code()).isEqualTo(1);
            assertThat(refused.lines()).endsWith("The data stands in the way.");
        }

        @Test
        void isEnded() {
            service.answering("DELETE /manage/v1/rehearsal", "");

            assertThat(service.run("rehearse", "--end").lines())
                    .containsExactly("The rehearsal is ended.");
        }
    }

    @Nested
    class Routes {
        @Test
        void areListedWithWhatTravels() {
            service.answering(
                    "GET /manage/v1/model",
                    """
                    {"routes": [
                      {"name": "papers", "label": "Papers", "services": ["desk", "yard"],
                       "travellers": [
                         {"object": "Payer", "field": "centre", "follows": false,
                          "reaches": ["Job", "Job.hours"]},
                         {"object": "Payer", "field": "mark", "follows": true,
                          "reaches": ["Job"]}]},
                      {"name": "bare", "label": "Bare", "services": [], "travellers": []}]}
                    """);

            assertThat(service.run("routes").lines())
                    .anySatisfy(line ->
                            assertThat(line)
                                    .contains(
                                            "papers",
                                            "Payer.centre",
                                            "taken over by",
                                            "Job, Job.hours",
                                            "desk, yard"))
                    .anySatisfy(line -> assertThat(line).contains("Payer.mark", "followed on"))
                    .anySatisfy(line -> assertThat(line).contains("bare", "nothing travels yet"));
        }

        @Test
        void mayBeNone() {
            service.answering("GET /manage/v1/model", "{\"routes\": []}");

            assertThat(service.run("routes", "--draft").lines())
                    .containsExactly("There are no routes.");
        }
    }

    @Nested
    class Kept {
        @Test
        void isListed() {
            service.answering(
                    "GET /manage/v1/kept-values",
                    "[{\"number\": 3, \"what\": \"Job.size\", \"rows\": 1200, \"release\": 4,"
                            + " \"until\": \"2026-06-01T10:00:00Z\"}]");

            assertThat(service.run("kept").lines().getLast())
                    .contains("3", "Job.size", "1,200", "4", "2026-06-01");
        }

        @Test
        void mayBeNothing() {
            service.answering("GET /manage/v1/kept-values", "[]");

            assertThat(service.run("kept").lines()).containsExactly("Nothing is kept aside.");
        }

        @Test
        void isDropped() {
            service.answering("DELETE /manage/v1/kept-values/3", "");

            assertThat(service.run("kept", "--forget", "3").lines())
                    .containsExactly("3 is dropped.");
        }
    }

    @Nested
    class Pull {
        private static final String DRAFT =
                """
                {"files": [{"path": "yard/package.yaml", "text": "package: yard\\n"},
                           {"path": "other/package.yaml", "text": "package: other\\n"}]}
                """;

        @Test
        void writesWhatDiffers() {
            service.answering("GET /manage/v1/draft", DRAFT);
            var into = folder.resolve("into");

            assertThat(service.run("pull", into.toString(), "--package", "yard").lines())
                    .containsExactly("wrote yard/package.yaml", "1 file written.");
            assertThat(into.resolve("yard/package.yaml")).hasContent("package: yard\n");
            assertThat(service.run("pull", into.toString(), "--package", "yard").lines())
                    .containsExactly("Nothing differs.");
        }

        @Test
        void replacesOnlyWhenThatIsSaid() {
            service.answering("GET /manage/v1/draft", DRAFT);

            var refused = service.run("pull", folder.toString(), "--package", "yard");
            assertThat(refused.code()).isEqualTo(1);
            assertThat(refused.out()).contains("differs from the draft; --overwrite replaces it.");

            assertThat(
                            service.run(
                                            "pull",
                                            folder.toString(),
                                            "--package",
                                            "yard",
                                            "--overwrite")
                                    .code())
                    .isZero();
            assertThat(folder.resolve("yard/package.yaml")).hasContent("package: yard\n");
        }

        @Test
        void writesNothingOutsideOfTheFolder() {
            service.answering(
                    "GET /manage/v1/draft",
                    "{\"files\": [{\"path\": \"../../evil.yaml\", \"text\": \"x\"}]}");

            var outcome = service.run("pull", folder.resolve("a/b").toString());

            assertThat(outcome.code()).isEqualTo(1);
            assertThat(outcome.out()).contains("leads out of the folder");
            assertThat(folder.resolve("evil.yaml")).doesNotExist();
        }
    }

    @Nested
    class Eval {
        @Test
        void byItselfNeedsNoService() {
            var outcome = service.run("eval", "1 + 2 * 3");

            assertThat(outcome.lines()).containsExactly("7");
            assertThat(service.asked()).isEmpty();
        }

        @Test
        void pointsAtWhatCannotBeRead() {
            var outcome = service.run("eval", "1 +");

            assertThat(outcome.code()).isEqualTo(1);
            assertThat(outcome.out()).contains("SP1", "| 1 +", "^");
        }

        @Test
        void saysWhySomethingIsNull() {
            var outcome = service.run("eval", "1 / 0");

            assertThat(outcome.code()).isZero();
            assertThat(outcome.lines().getFirst()).isEqualTo("null");
            assertThat(outcome.lines()).hasSizeGreaterThan(1);
        }

        @Test
        void onARecordIsAskedOfTheService() {
            service.answering(
                    "POST /manage/v1/trials",
                    "{\"findings\": [], \"faults\": [], \"value\": \"12\", \"notes\": [\"Hm.\"]}");

            var outcome = service.run("eval", "--on", "Stay/S1", "--with", "nights=3", "nights");

            assertThat(outcome.lines()).containsExactly("12", "Hm.");
            var asked = service.last().json();
            assertThat(asked.path("key").asString()).isEqualTo("S1");
            assertThat(asked.path("logic").path("object").asString()).isEqualTo("Stay");
            assertThat(asked.path("values").path("nights").asString()).isEqualTo("3");
        }

        @Test
        void endsWithOneWhenItCannotBeTried() {
            service.answering(
                    "POST /manage/v1/trials",
                    """
                    {"findings": [{"start": 0, "end": 4, "code": "SP2001", "message": "No nigh.",
                                   "suggestion": "night"}], "faults": []}
                    """);

            var outcome = service.run("eval", "--on", "Stay", "nigh");

            assertThat(outcome.code()).isEqualTo(1);
            assertThat(outcome.lines())
                    .containsExactly("SP2001 No nigh. Did you mean night?", "| nigh", "| ^^^^");
        }
    }

    @Nested
    class Contracts {
        @BeforeEach
        void known() {
            service.answering(
                    "GET /manage/v1/model/services", "[{\"name\": \"desk\", \"version\": 1}]");
            service.answering("GET /manage/v1/contracts/desk/v1/openapi.json", "{openapi}");
            service.answering("GET /manage/v1/contracts/desk/v1/wsdl", "<wsdl/>");
        }

        @Test
        void arePrintedInTheFormThatIsAskedFor() {
            assertThat(service.run("contract", "desk").lines()).containsExactly("{openapi}");
            assertThat(service.run("contract", "desk", "--as", "wsdl").lines())
                    .containsExactly("<wsdl/>");
        }

        @Test
        void areWrittenToAFile() {
            var file = folder.resolve("desk.json");

            service.run("contract", "desk", "--out", file.toString());

            assertThat(file).hasContent("{openapi}");
        }

        @Test
        void ofAServiceThatIsNoneNameThoseThatAre() {
            var outcome = service.run("contract", "desc");

            assertThat(outcome.code()).isEqualTo(1);
            assertThat(outcome.lines())
                    .containsExactly("There is no service desc v1; there are desk v1.");
        }
    }

    @Nested
    class Looking {
        @Test
        void atEventsWithWhatTheyTell() {
            service.answering(
                    "GET /manage/v1/events?search=Stay&limit=20",
                    """
                    [{"at": "now", "name": "StayEnded", "key": "S1", "by": "ann",
                      "data": {"nights": 3}}]
                    """);

            assertThat(service.run("events", "Stay").lines().getLast())
                    .contains("StayEnded", "S1", "ann", "{\"nights\":3}");
        }

        @Test
        void atDeliveriesByTargetAndState() {
            service.answering(
                    "GET /manage/v1/deliveries?target=webhook%20ledger&state=parked&limit=20",
                    """
                    [{"number": 7, "event": {"name": "StayEnded", "key": "S1"},
                      "target": "webhook ledger", "state": "parked", "tries": 3, "said": "Down."}]
                    """);

            assertThat(
                            service.run(
                                            "events",
                                            "deliveries",
                                            "--to",
                                            "webhook ledger",
                                            "--state",
                                            "parked")
                                    .lines()
                                    .getLast())
                    .contains("7", "StayEnded", "webhook ledger", "parked", "3", "Down.");
        }

        @Test
        void deliversAgain() {
            service.answering("POST /manage/v1/deliveries/7/redeliver", "{\"count\": 1}");
            service.answering("POST /manage/v1/deliveries/redeliver?target=", "{\"count\": 5}");

            assertThat(service.run("events", "redeliver", "7").lines())
                    .containsExactly("1 is tried again.");
            assertThat(service.run("events", "redeliver").lines())
                    .containsExactly("5 are tried again.");
        }

        @Test
        void atRunsThatWereRefused() {
            service.answering(
                    "GET /manage/v1/runs?name=Stay&key=&limit=20&done=false",
                    """
                    [{"at": "now", "kind": "function", "name": "Stay.checkOut", "key": "S1",
                      "done": false, "said": "No.", "millis": 2, "trace": "t-1"}]
                    """);

            assertThat(service.run("events", "runs", "Stay", "--failed").lines().getLast())
                    .contains("function Stay.checkOut", "refused", "No.", "t-1");
        }

        @Test
        void atTheLastTraceAsATree() {
            service.answering("GET /manage/v1/traces?limit=1", "[{\"id\": \"t-1\"}]");
            service.answering(
                    "GET /manage/v1/traces/t-1",
                    """
                    {"what": "create Stay", "by": "ann", "via": "console", "outcome": "refused",
                     "steps": [{"micros": 1500, "depth": 1, "kind": "CHECK", "title": "fits",
                                "detail": "a < b", "result": "false"}]}
                    """);

            assertThat(service.run("trace", "last").lines())
                    .containsExactly(
                            "create Stay by ann through console: refused",
                            "1.5 ms    check      fits  [a < b]  = false");
        }

        @Test
        void atTracesWhenThereAreNone() {
            service.answering("GET /manage/v1/traces?limit=20", "[]");

            assertThat(service.run("trace").lines())
                    .containsExactly("No request was refused yet, and none asked for an account.");
        }
    }

    @Nested
    class SingleRecords {
        private static final String ANSWER = "{\"values\": {\"code\": \"J1\"}}";

        @Test
        void areMadeOutOfFieldsAndValues() {
            service.answering("POST /manage/v1/records/Job", 201, ANSWER);

            var outcome = service.run("records", "create", "Job", "code=J1", "note=");

            assertThat(outcome.out()).contains("\"J1\"");
            assertThat(service.last().json().path("code").asString()).isEqualTo("J1");
            assertThat(service.last().json().has("note")).isTrue();
        }

        @Test
        void areMadeOutOfAFile() throws IOException {
            service.answering("POST /manage/v1/records/Job", 201, ANSWER);
            var file =
                    Files.writeString(
                            folder.resolve("job.json"), "{\"code\": \"J1\", \"size\": 3}");

            service.run("records", "create", "Job", "--from", file.toString());

            assertThat(service.last().json().path("size").asInt()).isEqualTo(3);
        }

        @Test
        void areChangedAsLongAsTheyHaveTheVersion() {
            service.answering("PATCH /manage/v1/records/Job/J1", ANSWER);

            service.run("records", "change", "Job", "J1", "--if-version", "4", "size=9");

            assertThat(service.last().headers()).containsEntry("If-match", "\"4\"");
        }

        @Test
        void comeBackIntoUse() {
            service.answering("POST /manage/v1/records/Job/J1/restore", "{}");

            assertThat(service.run("records", "restore", "Job", "J1").lines())
                    .containsExactly("1 restored");
        }

        @Test
        void needValuesThatHaveANameBeforeThem() {
            var outcome = service.run("records", "create", "Job", "J1");

            assertThat(outcome.code()).isNotZero();
            assertThat(service.asked()).isEmpty();
        }
    }
}
