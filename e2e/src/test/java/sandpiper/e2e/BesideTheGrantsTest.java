package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.CookieManager;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sandpiper.demo.Demo;

/** Doors beside the reading and writing of records: they show no more than those do. */
@ExtendWith(Marina.class)
class BesideTheGrantsTest {
    private static final String ADMIN = "admin:" + Demo.PASSWORD;
    private static final String PASSWORD = "a long sentence of its own";

    @BeforeAll
    static void makePeople() {
        role("edits-unseen", "{\"object\": \"Owner\", \"actions\": [\"EDIT\"]}");
        role(
                "sees-no-mail",
                "{\"object\": \"Owner\", \"actions\": [\"VIEW\"], \"hidden\": [\"email\","
                    + " \"phone\"]},{\"object\": \"Vessel\", \"actions\": [\"VIEW\", \"EDIT\"]}");
        person("edits-unseen", "\"roles\": [\"edits-unseen\"]");
        person("sees-no-mail", "\"roles\": [\"sees-no-mail\"]");
        person("designs-only", "\"duties\": [\"DESIGN\"]");
    }

    private static void role(String name, String objects) {
        var made =
                Marina.call(
                        ADMIN,
                        "PUT",
                        "/manage/v1/roles/" + name,
                        "{\"label\": \"%s\", \"duties\": [], \"services\": [], \"objects\": [%s]}"
                                .formatted(name, objects));
        assertThat(made.status()).as(made.whole().body()).isIn(200, 201);
    }

    private static void person(String name, String more) {
        var made =
                Marina.call(
                        ADMIN,
                        "POST",
                        "/manage/v1/users",
                        "{\"name\": \"%s\", \"password\": \"%s\", %s}"
                                .formatted(name, PASSWORD, more));
        assertThat(made.status()).as(made.whole().body()).isEqualTo(201);
    }

    private static String who(String name) {
        return name + ":" + PASSWORD;
    }

    @Test
    void aPreviewShowsNothingOfWhatIsNotSeen() {
        var form = "{\"key\": \"OW-0001\", \"values\": {}}";
        var answer =
                Marina.call(who("edits-unseen"), "POST", "/manage/v1/trials/records/Owner", form);
        assertThat(answer.whole().body())
                .doesNotContain("example.org", "+49", "balance\":", "\"name\":\"");
        assertThat(
                        Marina.call(
                                        Marina.CONSULTANT,
                                        "POST",
                                        "/manage/v1/trials/records/Owner",
                                        form)
                                .whole()
                                .body())
                .contains("example.org");
    }

    @Test
    void aPickListIsNotSearchedByWhatIsHidden() {
        var path = "/manage/v1/trials/offers/Vessel/owner";
        var key = "{\"key\": \"GH-101\", \"values\": {}, \"item\": 0, \"search\": \"%s\"}";
        var mail =
                Marina.get(ADMIN, "/manage/v1/records/Owner/OW-0007")
                        .json()
                        .path("values")
                        .path("email")
                        .asString();
        assertThat(mail).contains("@");
        assertThat(Marina.call(ADMIN, "POST", path, key.formatted(mail)).whole().body())
                .contains("OW-0007");
        for (var text : List.of(mail, mail.substring(0, 5), "@")) {
            var answer = Marina.call(who("sees-no-mail"), "POST", path, key.formatted(text));
            assertThat(answer.status()).isEqualTo(200);
            assertThat(answer.whole().body()).doesNotContain("OW-0007", mail);
        }
    }

    @Test
    void tracesAndEventsShowNoValuesToWhoOnlyDesigns() {
        var refused =
                Marina.call(
                        Marina.BOOKING,
                        "POST",
                        "/api/berth-desk/v1/stays",
                        "{\"vessel\": \"GH-101\", \"berth\": \"N-01\", \"arrival\": \"1999-01-07\","
                                + " \"departure\": \"1999-01-02\"}");
        assertThat(refused.status()).isEqualTo(422);
        var id = Marina.get(ADMIN, "/manage/v1/traces").json().get(0).path("id").asString();
        assertThat(Marina.get(ADMIN, "/manage/v1/traces/" + id).whole().body())
                .contains("1999-01-07");
        for (var path : List.of("/manage/v1/traces", "/manage/v1/traces/" + id)) {
            var answer = Marina.get(who("designs-only"), path);
            assertThat(answer.status()).isEqualTo(200);
            assertThat(answer.whole().body())
                    .doesNotContain("1999-01", "GH-101", "ST-20", "OW-0")
                    .contains("create Stay");
        }
        var ended = WebhookJourneyTest.stayThatEnded();
        assertThat(Marina.get(ADMIN, "/manage/v1/events").whole().body()).contains(ended);
        for (var path : List.of("/manage/v1/events", "/manage/v1/deliveries", "/manage/v1/runs")) {
            assertThat(Marina.get(who("designs-only"), path).whole().body())
                    .doesNotContain("ST-20", "GH-1", "OW-0");
        }
    }

    @Test
    void aBatchCountsAsManyCallsAsItHolds() {
        var secret = client("counted", "\"callsPerMinute\": 20");
        var one = "{\"number\": \"ST-1900-000001\"}";
        var batch =
                "{\"items\": [%s]}"
                        .formatted(String.join(",", java.util.Collections.nCopies(40, one)));
        var answer = Marina.call(secret, "POST", "/api/berth-desk/v1/stays:batch", batch);
        assertThat(answer.status()).as(answer.whole().body()).isEqualTo(429);
        assertThat(answer.whole().body()).contains("counts as 40 calls", "Nothing was done");
    }

    @Test
    void tokensAreCountedToo() {
        var secret = client("token-taker", "\"callsPerMinute\": 2");
        for (int status : new int[] {200, 200, 429}) {
            var answer =
                    Marina.call(
                            secret,
                            "POST",
                            "/oauth2/token",
                            "grant_type=client_credentials",
                            "Content-Type",
                            "application/x-www-form-urlencoded");
            assertThat(answer.status()).isEqualTo(status);
            assertThat(answer.header("Retry-After").isEmpty()).isEqualTo(status == 200);
        }
    }

    @Test
    void aSecretThatSomebodyChoseCannotBeGuessedAtLeisure() throws Exception {
        client("chosen", "\"secret\": \"a secret somebody chose\"");
        var path = "/api/berth-desk/v1/stays?limit=1";
        for (int i = 0; i < 5; i++) {
            assertThat(Marina.get("chosen:guess " + i, path).status()).isEqualTo(401);
        }
        assertThat(Marina.get("chosen:guess", path).status()).isEqualTo(429);
        // What is noted is stored a little later, so that nobody waits for it.
        var log = "";
        for (int i = 0; i < 50 && !log.contains("client locked"); i++) {
            Thread.sleep(100);
            log = Marina.get(ADMIN, "/manage/v1/access-log").whole().body();
        }
        assertThat(log).contains("client refused", "client locked");
    }

    /** Makes a client and gives its id and secret. */
    private static String client(String name, String more) {
        var made =
                Marina.call(
                        ADMIN,
                        "POST",
                        "/manage/v1/clients",
                        "{\"name\": \"%s\", \"grants\": [\"berth-desk/*/*\"], %s}"
                                .formatted(name, more));
        assertThat(made.status()).as(made.whole().body()).isEqualTo(201);
        return name + ":" + made.json().path("secret").asString();
    }

    /** Somebody with a browser of their own. */
    private static final class Browser {
        private final HttpClient http =
                HttpClient.newBuilder()
                        .version(HttpClient.Version.HTTP_1_1)
                        .cookieHandler(new CookieManager())
                        .build();

        HttpResponse<String> call(String method, String path, String body, String... headers)
                throws Exception {
            var request =
                    HttpRequest.newBuilder(URI.create(Marina.address() + path))
                            .header("Content-Type", "application/json")
                            .method(method, BodyPublishers.ofString(body));
            for (int i = 0; i < headers.length; i += 2) {
                request.setHeader(headers[i], headers[i + 1]);
            }
            return http.send(request.build(), BodyHandlers.ofString());
        }

        private String forgeryToken() {
            return ((CookieManager) http.cookieHandler().orElseThrow())
                    .getCookieStore().getCookies().stream()
                            .filter(cookie -> cookie.getName().equals("XSRF-TOKEN"))
                            .findFirst()
                            .orElseThrow()
                            .getValue();
        }

        HttpResponse<String> guarded(String method, String path, String body) throws Exception {
            return call(method, path, body, "X-XSRF-TOKEN", forgeryToken());
        }

        Browser signedIn(String name, String password) throws Exception {
            call("GET", "/manage/v1/session", "");
            assertThat(
                            guarded(
                                            "POST",
                                            "/manage/v1/session",
                                            "{\"name\": \"%s\", \"password\": \"%s\"}"
                                                    .formatted(name, password))
                                    .statusCode())
                    .isEqualTo(200);
            return this;
        }
    }

    @Test
    void aHeaderThatNobodyReadsDoesNotSwitchTheGuardOff() throws Exception {
        var browser = new Browser().signedIn("designs-only", PASSWORD);
        var body = "{\"current\": \"x\", \"next\": \"another long sentence\"}";
        var path = "/manage/v1/users/me/password";
        assertThat(browser.call("POST", path, body).statusCode()).isEqualTo(403);
        assertThat(browser.call("POST", path, body, "Authorization", "Negotiate abc").statusCode())
                .isEqualTo(403);
        assertThat(browser.guarded("POST", path, body).statusCode()).isEqualTo(422);
    }

    @Test
    void peopleSeeAndEndTheirOwnSessions() throws Exception {
        person("two-desks", "\"duties\": []");
        var here = new Browser().signedIn("two-desks", PASSWORD);
        var there = new Browser().signedIn("two-desks", PASSWORD);
        new Browser().signedIn("designs-only", PASSWORD);
        var open =
                sandpiper.client.ManageClient.read(
                        here.call("GET", "/manage/v1/sessions", "").body());
        assertThat(open).hasSize(2);
        for (var one : open) {
            assertThat(one.path("address").asString()).isEqualTo("127.0.0.1");
            assertThat(one.path("agent").asString()).contains("Java");
            if (!one.path("own").asBoolean()) {
                var path = "/manage/v1/sessions/" + one.path("id").asString();
                assertThat(here.guarded("DELETE", path, "").statusCode()).isEqualTo(204);
                assertThat(here.guarded("DELETE", path, "").statusCode()).isEqualTo(404);
            }
        }
        assertThat(there.call("GET", "/manage/v1/session", "").statusCode()).isEqualTo(401);
        assertThat(here.call("GET", "/manage/v1/session", "").statusCode()).isEqualTo(200);
    }

    @Test
    void whoHasATemporaryPasswordChoosesAnotherFirst() throws Exception {
        person("new-here", "\"temporary\": true, \"duties\": [\"RECORDS\", \"DESIGN\"]");
        for (var path :
                List.of(
                        "/manage/v1/status",
                        "/manage/v1/records/Owner",
                        "/manage/v1/sessions",
                        "/manage/v1/model")) {
            var answer = Marina.get(who("new-here"), path);
            assertThat(answer.status()).as(path).isEqualTo(403);
            assertThat(answer.whole().body()).contains("Choose your own first");
        }
        var browser = new Browser().signedIn("new-here", PASSWORD);
        assertThat(browser.call("GET", "/manage/v1/session", "").body())
                .contains("\"temporary\":true");
        for (var door : List.of("/api/berth-desk/v1/stays", "/odata/berth-desk/v1/stays")) {
            assertThat(browser.call("GET", door, "").statusCode()).as(door).isEqualTo(403);
        }
        var path = "/manage/v1/users/me/password";
        var same = "{\"current\": \"%s\", \"next\": \"%s\"}";
        assertThat(browser.guarded("POST", path, same.formatted(PASSWORD, PASSWORD)).body())
                .contains("choose another");
        assertThat(
                        browser.guarded(
                                        "POST",
                                        path,
                                        same.formatted(PASSWORD, "entirely my own now"))
                                .statusCode())
                .isEqualTo(204);
        assertThat(Marina.get("new-here:entirely my own now", "/manage/v1/status").status())
                .isEqualTo(200);
    }
}
