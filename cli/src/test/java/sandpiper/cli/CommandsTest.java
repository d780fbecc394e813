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
import sandpiper.cli.FakeService.Outcome;

/** What each command asks a service, prints, and ends with. */
class CommandsTest {
    @TempDir Path folder;
    private FakeService service;

    @BeforeEach
    void start() {
        service = new FakeService(folder);
    }

    @AfterEach
    void stop() {
        service.close();
    }

    private void asks(String method, String path, String body) {
        assertThat(service.last().method()).isEqualTo(method);
        assertThat(service.last().path()).isEqualTo(path);
        assertThat(service.last().body()).isEqualTo(body);
    }

    private static void says(Outcome outcome, String... lines) {
        assertThat(outcome.code()).as(outcome.out()).isZero();
        assertThat(outcome.lines()).containsExactly(lines);
    }

    private Path file(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text);
    }

    @Nested
    class WhateverTheCommand {
        @Test
        void saysWhoAsksAndThatItIsTheCommandLine() {
            service.answering("GET /manage/v1/clients", "[]");

            service.run("clients", "list");

            assertThat(service.last().headers())
                    .containsEntry("Authorization", "Basic YW5uOnNlY3JldA==")
                    .containsEntry("User-agent", "sandpiper-cli");
        }

        @Test
        void tellsARefusalWithItsPlacesAndEndsWithOne() {
            service.answering(
                    "POST /manage/v1/clients",
                    422,
                    """
                    {"detail": "2 things are wrong; each is listed with its place.",
                     "errors": [{"pointer": "/name", "message": "Too short."},
                                {"pointer": "", "message": "No grants."}]}
                    """);

            var outcome = service.run("clients", "create", "x", "--grant", "a/b/c");

            assertThat(outcome.code()).isEqualTo(1);
            assertThat(outcome.out().lines())
                    .containsExactly(
                            "2 things are wrong; each is listed with its place.",
                            "  name: Too short.",
                            "  No grants.");
        }

        @Test
        void saysOneFaultOnceWithItsPlace() {
            service.answering(
                    "POST /manage/v1/clients",
                    422,
                    """
                    {"detail": "Too short.",
                     "errors": [{"pointer": "/name", "message": "Too short."}]}
                    """);

            var outcome = service.run("clients", "create", "x", "--grant", "a/b/c");

            assertThat(outcome.out().lines()).containsExactly("name: Too short.");
        }

        @Test
        void endsWithTwoWhenItIsCalledWrongly() {
            var outcome = service.run("clients", "create");

            assertThat(outcome.code()).isEqualTo(2);
            assertThat(outcome.out()).contains("Missing required", "--grant");
            assertThat(service.asked()).isEmpty();
        }

        @Test
        void namesTheNearestOfCommandsThatAreNone() {
            var outcome = service.run("client");

            assertThat(outcome.code()).isEqualTo(2);
            assertThat(outcome.out()).contains("clients");
        }

        @Test
        void escapesWhatStandsInAddresses() {
            service.answering("DELETE /manage/v1/users/a%20b%2Fc", 204, "");

            says(service.run("users", "remove", "a b/c"), "removed a b/c");
        }

        @Test
        void doesNotSpeakOfWhatAServiceDidNotSay() {
            service.answering("GET /manage/v1/clients", 502, "<html>no</html>");

            var outcome = service.run("clients", "list");

            assertThat(outcome.code()).isEqualTo(1);
            assertThat(outcome.lines()).containsExactly("The server answered 502.");
        }
    }

    @Nested
    class Clients {
        private static final String MADE =
                "{\"client\": {\"name\": \"desk\"}, \"secret\": \"abc\"}";

        @Test
        void areListedWithTheirState() {
            service.answering(
                    "GET /manage/v1/clients",
                    """
                    [{"name": "desk", "label": "Desk", "grants": ["a/b/c", "a/b/d"]},
                     {"name": "old", "label": "Old", "grants": [], "disabled": true,
                      "lastUsed": "2026-05-01"},
                     {"name": "new", "label": "New", "grants": [], "previousUntil": "2026-05-02"}]
                    """);

            var lines = service.run("clients", "list").lines();

            assertThat(lines).hasSize(5);
            assertThat(lines.get(0)).startsWith("Client").endsWith("State");
            assertThat(lines.get(2)).contains("desk", "a/b/c, a/b/d", "never", "in use");
            assertThat(lines.get(3)).contains("old", "2026-05-01", "disabled");
            assertThat(lines.get(4)).contains("old secret right until 2026-05-02");
        }

        @Test
        void areMadeWithWhatWasSaid() {
            service.answering("POST /manage/v1/clients", 201, MADE);

            says(
                    service.run(
                            "clients",
                            "create",
                            "desk",
                            "--grant",
                            "a/b/c",
                            "--grant",
                            "a/b/d",
                            "--label",
                            "Desk",
                            "--calls-per-minute",
                            "9"),
                    "client desk",
                    "secret abc",
                    "Note it now: it is not shown again.");
            asks(
                    "POST",
                    "/manage/v1/clients",
                    "{\"name\":\"desk\",\"grants\":[\"a/b/c\",\"a/b/d\"],\"digests\":false,"
                            + "\"callsPerMinute\":9,\"label\":\"Desk\"}");
        }

        @Test
        void getAnotherSecretThatOverlaps() {
            service.answering("POST /manage/v1/clients/desk/secret", MADE);

            service.run("clients", "rotate", "desk", "--overlap-hours", "48");

            asks("POST", "/manage/v1/clients/desk/secret", "{\"overlapHours\":48}");
        }

        @Test
        void areSwitchedLimitedAndRemoved() {
            service.answering("PATCH /manage/v1/clients/desk", "{}");
            service.answering("DELETE /manage/v1/clients/desk", 204, "");

            says(service.run("clients", "disable", "desk"), "desk is disabled");
            asks("PATCH", "/manage/v1/clients/desk", "{\"disabled\":true}");
            says(service.run("clients", "enable", "desk"), "desk is in use again");
            says(
                    service.run("clients", "limit", "desk", "--calls-per-minute", "1200"),
                    "desk may call 1,200 times a minute");
            says(
                    service.run("clients", "limit", "desk", "--calls-per-minute", "0"),
                    "desk may call as often as usual");
            says(service.run("clients", "remove", "desk"), "desk is removed");
            asks("DELETE", "/manage/v1/clients/desk", "");
        }
    }

    @Nested
    class People {
        @Test
        void areMadeWithAPasswordFromAFileThatIsForOnce() throws IOException {
            service.answering("POST /manage/v1/users", 201, "{}");
            var password = file("pw", "correct horse\n");

            says(
                    service.run(
                            "users",
                            "create",
                            "bob",
                            "--role",
                            "pilots",
                            "--password-file",
                            password.toString()),
                    "created bob");
            asks(
                    "POST",
                    "/manage/v1/users",
                    "{\"name\":\"bob\",\"roles\":[\"pilots\"],\"password\":\"correct horse\","
                            + "\"temporary\":true}");
        }

        @Test
        void areChangedInWhatIsSaidOnly() {
            service.answering("PATCH /manage/v1/users/bob", "{}");

            service.run("users", "change", "bob", "--disable");
            asks("PATCH", "/manage/v1/users/bob", "{\"disabled\":true}");
            service.run("users", "change", "bob", "--role", "a", "--role", "b");
            asks("PATCH", "/manage/v1/users/bob", "{\"roles\":[\"a\",\"b\"]}");
        }

        @Test
        void changeTheirOwnPasswordWithTheCurrentOne() throws IOException {
            service.answering("POST /manage/v1/users/me/password", 204, "");

            says(
                    service.run(
                            "users",
                            "password",
                            "--password-file",
                            file("new", "correct horse").toString(),
                            "--current-file",
                            file("old", "battery").toString()),
                    "changed");
            assertThat(service.last().json().path("current").asString()).isEqualTo("battery");
            assertThat(service.last().json().path("next").asString()).isEqualTo("correct horse");
        }

        @Test
        void areListedWithWhatTheyMay() {
            service.answering(
                    "GET /manage/v1/users",
                    """
                    [{"name": "bob", "label": "Bob", "roles": ["pilots"], "duties": ["design"]}]
                    """);

            assertThat(service.run("users", "list").lines().getLast())
                    .contains("bob", "Bob", "pilots", "design", "in use");
        }

        @Test
        void haveALogOfWhoChangedThem() {
            service.answering(
                    "GET /manage/v1/access-log",
                    """
                    [{"at": "2026-05-01", "by": "ann", "what": "user made", "subject": "bob",
                      "detail": "roles pilots"}]
                    """);

            assertThat(service.run("users", "log").lines().getLast())
                    .contains("2026-05-01", "ann", "user made", "bob", "roles pilots");
        }
    }

    @Nested
    class Roles {
        private static final String PILOTS =
                """
                [{"name": "pilots", "duties": ["OPERATE"], "services": ["a/b/c"],
                  "objects": [{"object": "Job", "actions": ["VIEW", "EDIT"]}],
                  "users": ["bob"]}]
                """;

        @Test
        void areListedShortly() {
            service.answering("GET /manage/v1/roles", PILOTS);

            assertThat(service.run("roles", "list").lines().getLast())
                    .contains("pilots", "operate", "Job ve", "a/b/c", "bob");
        }

        @Test
        void areShownAsTheyAreSet() {
            service.answering("GET /manage/v1/roles", PILOTS);

            assertThat(service.run("roles", "show", "pilots").out()).contains("\"OPERATE\"");
            var unknown = service.run("roles", "show", "pilot");
            assertThat(unknown.code()).isEqualTo(1);
            assertThat(unknown.lines()).containsExactly("There is no role \"pilot\".");
        }

        @Test
        void areSetFromAFileAndRemoved() throws IOException {
            service.answering("PUT /manage/v1/roles/pilots", "{}");
            service.answering("DELETE /manage/v1/roles/pilots", 204, "");

            says(
                    service.run(
                            "roles",
                            "set",
                            "pilots",
                            "--file",
                            file("pilots.json", "{\"label\": \"Pilots\"}").toString()),
                    "set pilots");
            asks("PUT", "/manage/v1/roles/pilots", "{\"label\":\"Pilots\"}");
            says(service.run("roles", "remove", "pilots"), "removed pilots");
        }
    }

    @Nested
    class Records {
        @Test
        void areFoundByWhatIsSaid() {
            service.answering(
                    "GET /manage/v1/records/Stay",
                    """
                    {"total": 12, "records": [
                      {"values": {"number": "S1", "nights": 3, "charges": [1], "note": null}},
                      {"values": {"number": "S2", "nights": 4, "charges": [], "note": "x"}}]}
                    """);

            var outcome =
                    service.run(
                            "records",
                            "find",
                            "Stay",
                            "--filter",
                            "nights > 2",
                            "--search",
                            "a b",
                            "--sort",
                            "-nights",
                            "--limit",
                            "5");

            assertThat(service.last().path())
                    .isEqualTo(
                            "/manage/v1/records/Stay?limit=5&count=true&filter=nights%20%3E%202"
                                    + "&search=a%20b&sort=-nights");
            assertThat(outcome.lines().get(0).split("\\s+"))
                    .containsExactly("number", "nights", "note");
            assertThat(outcome.lines().getLast()).isEqualTo("2 of 12");
        }

        @Test
        void showTheColumnsThatAreAskedFor() {
            service.answering(
                    "GET /manage/v1/records/Stay",
                    "{\"total\": 1, \"records\": [{\"values\": {\"a\": 1, \"b\": {\"x\": 2}}}]}");

            var lines = service.run("records", "find", "Stay", "--fields", "b,c").lines();

            assertThat(lines.get(0).split("\\s+")).containsExactly("b", "c");
            assertThat(lines.get(2)).isEqualTo("{\"x\":2}");
        }

        @Test
        void takeTransitions() {
            service.answering(
                    "POST /manage/v1/records/Stay/S%2F1/transitions/confirm",
                    "{\"values\": {\"state\": \"Confirmed\"}}");

            assertThat(service.run("records", "transition", "Stay", "S/1", "confirm").out())
                    .contains("Confirmed");
        }

        @Test
        void areRetiredAndAskWithAnOptionWhereTheServiceAsksWithAHeader() {
            service.answering(
                    "DELETE /manage/v1/records/Vessel/V1",
                    409,
                    "{\"detail\": \"In use; say so (Sandpiper-Confirm: in-use).\"}");
            service.answering("DELETE /manage/v1/records/Vessel/V2", 204, "");

            assertThat(service.run("records", "retire", "Vessel", "V1").lines())
                    .containsExactly("In use; say so (--used).");
            says(service.run("records", "retire", "Vessel", "V2", "V2", "--used"), "2 retired");
            assertThat(service.last().headers()).containsEntry("Sandpiper-confirm", "in-use");
        }
    }

    @Nested
    class Functions {
        @Test
        void areCalledWithTextAndJson() {
            service.answering(
                    "POST /manage/v1/functions/Stay/quote",
                    "{\"returns\": true, \"result\": 12.5, \"warnings\": [\"High season.\"]}");

            says(
                    service.run("call", "Stay.quote", "--with", "length=9", "--with", "of=[1,2]"),
                    "12.5",
                    "Warning: High season.");
            asks(
                    "POST",
                    "/manage/v1/functions/Stay/quote",
                    "{\"arguments\":{\"length\":\"9\",\"of\":[1,2]}}");
        }

        @Test
        void areDoneWhenTheyGiveNothingBack() {
            service.answering("POST /manage/v1/functions/Stay/checkIn", "{\"returns\": false}");

            says(service.run("call", "Stay.checkIn", "--on", "S1"), "Done.");
            asks("POST", "/manage/v1/functions/Stay/checkIn", "{\"key\":\"S1\",\"arguments\":{}}");
        }

        @Test
        void areCalledOnEachAndEndWithOneWhenAnyIsRefused() {
            service.answering(
                    "POST /manage/v1/functions/Stay/invoice/each",
                    """
                    {"done": 1, "failed": 1, "results": [
                      {"key": "S1", "done": true, "result": "I-1"},
                      {"key": "S2", "done": false, "problem": "Not there."}]}
                    """);

            var outcome = service.run("call", "Stay.invoice", "--on", "S1", "--on", "S2");

            assertThat(outcome.code()).isEqualTo(1);
            assertThat(outcome.lines().get(2)).contains("S1", "done", "I-1");
            assertThat(outcome.lines().get(3)).contains("S2", "refused", "Not there.");
        }

        @Test
        void areNamedWithTheirObject() {
            var outcome = service.run("call", "quote");

            assertThat(outcome.code()).isEqualTo(2);
            assertThat(outcome.out()).contains("Write object and function with a point between");
        }
    }

    @Nested
    class LookingAtAService {
        @Test
        void tellsWhereItStands() {
            service.answering(
                    "GET /manage/v1/status",
                    """
                    {"version": "0.1.0", "storedIn": "PostgreSQL 15.18", "release": 3,
                     "sharing": {"conflicts": 1200, "disconnects": 1, "processes": [
                       {"name": "north/17", "since": "2026-05-01T08:00:00Z", "own": true},
                       {"name": "south/4", "since": "2026-05-01T09:00:00Z", "own": false}]},
                     "services": 2, "changedFiles": 4,
                     "working": [{"formula": "Owner.metres", "share": 0.25}],
                     "objects": [{"name": "Stay", "inUse": 12, "retired": 1}]}
                    """);

            var lines = service.run("status").lines();

            assertThat(lines.get(0)).endsWith(": version 0.1.0, release 3, 2 services");
            assertThat(lines.get(1)).isEqualTo("The data is in PostgreSQL 15.18.");
            assertThat(lines.get(2))
                    .isEqualTo("2 processes work on it: north/17 (this one), south/4.");
            assertThat(lines.get(3)).contains("1,200 since others changed the same", "1 since a");
            assertThat(lines.get(4)).isEqualTo("4 files wait to be released.");
            assertThat(lines.get(5))
                    .startsWith("Owner.metres is being worked out")
                    .contains("25 %");
            assertThat(lines.getLast()).contains("Stay", "12", "1");
        }

        @Test
        void tellsThatNothingWaits() {
            service.answering("GET /manage/v1/status", "{\"changedFiles\": 0, \"objects\": []}");

            assertThat(service.run("status").lines()).contains("The draft is released.");
        }

        @Test
        void showsTrafficOfAServiceAndWhatFailed() {
            service.answering(
                    "GET /manage/v1/traffic?days=30",
                    """
                    {"calls": [
                       {"service": "desk", "version": 1, "resource": "stays", "operation": "read",
                        "protocol": "REST", "caller": "site", "calls": 9, "errors": 1,
                        "meanMillis": 2},
                       {"service": "other", "version": 1}],
                     "failed": [
                       {"at": "now", "service": "desk", "resource": "stays", "operation": "read",
                        "caller": "site", "status": 404, "message": "There is no Stay."}]}
                    """);

            var calls = service.run("traffic", "desk", "--days", "30").lines();
            var failed = service.run("traffic", "desk", "--days", "30", "--failed").lines();

            assertThat(calls).hasSize(3);
            assertThat(calls.getLast()).contains("desk v1", "stays read", "REST", "site", "9");
            assertThat(failed.getLast()).contains("404", "There is no Stay.");
        }

        @Test
        void showsRevisionsWithTheirCallersAndEndsOne() {
            service.answering(
                            "GET /manage/v1/contracts/desk/v2/revisions",
                            """
                            [{"number": 5, "at": "now", "gained": ["stays: tag"], "newest": true,
                              "endedAt": null, "callers": []},
                             {"number": 3, "at": "then", "gained": [], "newest": false,
                              "endedAt": null,
                              "callers": [{"caller": "site", "calls": 4, "last": "now"}]},
                             {"number": 1, "at": null, "gained": [], "newest": false,
                              "endedAt": "long ago", "callers": []}]
                            """)
                    .answering("DELETE /manage/v1/contracts/desk/v2/revisions/3", "");

            var shown = service.run("revisions", "desk", "--version-number", "2").lines();
            var ended =
                    service.run("revisions", "desk", "--version-number", "2", "--end", "3").lines();

            assertThat(shown.get(2)).contains("5", "stays: tag", "newest");
            assertThat(shown.get(3)).contains("3", "site (4)", "answered");
            assertThat(shown.get(4)).contains("1", "ended long ago");
            assertThat(ended).containsExactly("Revision 3 of desk v2 is ended.");
        }

        @Test
        void listsWebhooks() {
            service.answering(
                    "GET /manage/v1/webhooks",
                    """
                    [{"name": "ledger", "address": "https://l/", "events": ["StayEnded"],
                      "filter": "total > 1"}]
                    """);

            assertThat(service.run("webhooks", "list").lines().getLast())
                    .contains("ledger", "https://l/", "StayEnded", "total > 1", "in use");
        }

        @Test
        void makesAWebhookAndShowsItsSecretOnce() {
            service.answering(
                    "POST /manage/v1/webhooks",
                    201,
                    "{\"webhook\": {\"address\": \"https://l/\"}, \"secret\": \"whsec_x\"}");

            says(
                    service.run(
                            "webhooks",
                            "create",
                            "ledger",
                            "--address",
                            "https://l/",
                            "--event",
                            "StayEnded"),
                    "https://l/",
                    "Secret, shown this once: whsec_x");
        }

        @Test
        void renewsKeys() {
            service.answering("POST /manage/v1/keys/renew", 204, "");

            says(
                    service.run("keys", "renew"),
                    "renewed; tokens and cursors from before are not taken any more");
        }
    }
}
