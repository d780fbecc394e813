package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Clients from the first secret to the last call. */
@ExtendWith(Marina.class)
class AccessJourneyTest {
    private static final String CLIENTS = "/manage/v1/clients";
    private static final String BERTHS = "/api/berth-desk/v1/berths?limit=1";
    private static final String FORM = "application/x-www-form-urlencoded";

    private static JsonNode made(String name, String grants) {
        var answer =
                Marina.call(
                        Marina.CONSULTANT,
                        "POST",
                        CLIENTS,
                        "{\"name\": \"%s\", \"grants\": %s}".formatted(name, grants));
        assertThat(answer.status()).as(answer.whole().body()).isEqualTo(201);
        return answer.json();
    }

    private static Marina.Answer patch(String name, String change) {
        return Marina.call(Marina.CONSULTANT, "PATCH", CLIENTS + "/" + name, change);
    }

    private static Marina.Answer token(String who, String form) {
        return Marina.call(who, "POST", "/oauth2/token", form, "Content-Type", FORM);
    }

    private static Marina.Answer withToken(String token, String path) {
        return Marina.call("", "GET", path, "", "Authorization", "Bearer " + token);
    }

    @Test
    void aNewSecretIsRightBesideTheOldOneForAWhile() {
        var first = made("ferry", "[\"berth-desk/berths/query\"]").path("secret").asString();
        var rotated =
                Marina.call(
                        Marina.CONSULTANT,
                        "POST",
                        CLIENTS + "/ferry/secret",
                        "{\"overlapHours\": 1}");
        var second = rotated.json().path("secret").asString();

        assertThat(second).isNotEqualTo(first);
        assertThat(Marina.get("ferry:" + first, BERTHS).status()).isEqualTo(200);
        assertThat(Marina.get("ferry:" + second, BERTHS).status()).isEqualTo(200);

        var third =
                Marina.call(
                                Marina.CONSULTANT,
                                "POST",
                                CLIENTS + "/ferry/secret",
                                "{\"overlapHours\": 0}")
                        .json()
                        .path("secret")
                        .asString();
        assertThat(Marina.get("ferry:" + first, BERTHS).status()).isEqualTo(401);
        assertThat(Marina.get("ferry:" + second, BERTHS).status()).isEqualTo(401);
        assertThat(Marina.get("ferry:" + third, BERTHS).status()).isEqualTo(200);
    }

    @Test
    void aTokenDoesWhatItsClientMayAndEndsWithIt() {
        var secret = made("kiosk", "[\"berth-desk/berths/query\"]").path("secret").asString();
        var answer = token("kiosk:" + secret, "grant_type=client_credentials");
        assertThat(answer.status()).isEqualTo(200);
        assertThat(answer.header("Cache-Control")).contains("no-store");
        assertThat(answer.json().path("token_type").asString()).isEqualTo("Bearer");
        var token = answer.json().path("access_token").asString();

        assertThat(withToken(token, BERTHS).status()).isEqualTo(200);
        assertThat(withToken(token, "/api/berth-desk/v1/stays").status()).isEqualTo(403);

        assertThat(patch("kiosk", "{\"disabled\": true}").json().path("disabled").asBoolean())
                .isTrue();
        assertThat(withToken(token, BERTHS).status()).isEqualTo(401);
        assertThat(Marina.get("kiosk:" + secret, BERTHS).status()).isEqualTo(401);
        assertThat(token("kiosk:" + secret, "grant_type=client_credentials").status())
                .isEqualTo(401);

        patch("kiosk", "{\"disabled\": false, \"grants\": [\"berth-desk/stays/confirm\"]}");
        assertThat(withToken(token, BERTHS).status()).isEqualTo(403);
    }

    @Test
    void theTokenEndpointTellsWhatIsWrongInItsStandardWay() {
        var wrong = token("", "grant_type=client_credentials&client_id=kiosk&client_secret=no");
        assertThat(wrong.status()).isEqualTo(401);
        assertThat(wrong.json().path("error").asString()).isEqualTo("invalid_client");
        assertThat(token(Marina.BOOKING, "grant_type=password").json().path("error").asString())
                .isEqualTo("unsupported_grant_type");
        assertThat(token(Marina.BOOKING, "").json().path("error").asString())
                .isEqualTo("invalid_request");
        assertThat(
                        token(
                                        "",
                                        "grant_type=client_credentials&client_id=booking-site&client_secret="
                                                + sandpiper.demo.Demo.BOOKING_SECRET)
                                .status())
                .isEqualTo(200);
    }

    @Test
    void aTokenThatWasTamperedWithIsNone() {
        var token =
                token(Marina.BOOKING, "grant_type=client_credentials")
                        .json()
                        .path("access_token")
                        .asString();
        var parts = token.split("\\.");
        var unsigned = "eyJhbGciOiJub25lIn0." + parts[1] + ".";
        // Another letter than the one that is there, whichever that is.
        char letter = parts[2].charAt(5);
        var other =
                parts[0]
                        + "."
                        + parts[1]
                        + "."
                        + parts[2].replace(letter, letter == 'x' ? 'y' : 'x');

        for (var forged : new String[] {unsigned, other, "nonsense", parts[1]}) {
            var answer = withToken(forged, BERTHS);
            assertThat(answer.status()).isEqualTo(401);
            assertThat(answer.header("WWW-Authenticate")).contains("invalid_token");
        }
    }

    @Test
    void onlyWhoManagesAccessDoes() {
        assertThat(Marina.get(Marina.CLERK, CLIENTS).status()).isEqualTo(403);
        assertThat(
                        Marina.call(Marina.CLERK, "POST", CLIENTS + "/booking-site/secret", "{}")
                                .status())
                .isEqualTo(403);
        assertThat(patch("nobody-here", "{\"disabled\": true}").status()).isEqualTo(404);
        assertThat(
                        Marina.call(
                                        Marina.CONSULTANT,
                                        "POST",
                                        CLIENTS,
                                        "{\"name\": \"x1\", \"grants\": [\"everything\"]}")
                                .whole()
                                .body())
                .contains("service/resource/operation");
    }

    @Test
    void answersShowNoMoreThanMayBeRead() {
        var made =
                Marina.call(
                        Marina.CONSULTANT,
                        "POST",
                        "/manage/v1/clients",
                        """
                        {"name": "half-reader", "secret": "half-of-the-harbour", "grants": [
                          "vessel-registry/vessels/update",
                          "vessel-registry/vessels/query",
                          "vessel-registry/vessels/read where kind = \\"motor\\""]}
                        """);
        assertThat(made.status()).as(made.whole().body()).isEqualTo(201);
        var who = "half-reader:half-of-the-harbour";
        var set = "/api/vessel-registry/v1/vessels";
        var motor = firstKey("motor");
        var sail = firstKey("sail");

        assertThat(change(who, set + "/" + motor)).contains("\"country\"");
        assertThat(change(who, set + "/" + sail))
                .contains("\"registration\":\"" + sail)
                .doesNotContain("\"country\"");
        assertThat(Marina.get(who, set + "?fields=draught&limit=1").status()).isEqualTo(400);
        var odata = "/odata/vessel-registry/v1/vessels?$select=draught&$top=1";
        assertThat(Marina.get(who, odata).status()).isEqualTo(400);
        assertThat(Marina.get("port-authority:tide-tables-2026", odata).status()).isEqualTo(200);
    }

    private static String change(String who, String address) {
        var answer = Marina.call(who, "PATCH", address, "{}");
        assertThat(answer.status()).as(answer.whole().body()).isEqualTo(200);
        return answer.whole().body();
    }

    private static String firstKey(String kind) {
        return Marina.get(
                        "port-authority:tide-tables-2026",
                        "/api/vessel-registry/v1/vessels?limit=1&filter=kind%20%3D%20%22"
                                + kind
                                + "%22")
                .json()
                .path("items")
                .get(0)
                .path("registration")
                .asString();
    }

    @Test
    void aClientThatCallsTooOftenIsToldWhenToGoOn() {
        var secret =
                made("eager-ferry", "[\"berth-desk/berths/query\", \"harbour-report/*/*\"]")
                        .path("secret")
                        .asString();
        patch("eager-ferry", "{\"callsPerMinute\": 2}");
        var ferry = "eager-ferry:" + secret;

        var first = Marina.get(ferry, BERTHS);
        assertThat(first.status()).isEqualTo(200);
        assertThat(first.header("RateLimit-Policy")).isEqualTo("\"client\";q=2;w=60");
        assertThat(first.header("RateLimit")).startsWith("\"client\";r=1;t=");
        assertThat(Marina.get(ferry, BERTHS).status()).isEqualTo(200);

        var third = Marina.get(ferry, BERTHS);
        assertThat(third.status()).isEqualTo(429);
        assertThat(Integer.parseInt(third.header("Retry-After"))).isBetween(1, 30);
        assertThat(third.json().path("detail").asString())
                .startsWith("eager-ferry may call 2 times a minute; go on in ");
        var overOData = Marina.get(ferry, "/odata/berth-desk/v1/berths");
        assertThat(overOData.status()).isEqualTo(429);
        assertThat(overOData.json().path("error").path("message").asString())
                .contains("2 times a minute");
        var overSoap =
                Marina.call(
                        ferry,
                        "POST",
                        "/soap/harbour-report/v1",
                        "<s:Envelope xmlns:s=\"http://schemas.xmlsoap.org/soap/envelope/\"><s:Body>"
                                + "<FindStays xmlns=\"urn:sandpiper:harbour-report:v1\"/>"
                                + "</s:Body></s:Envelope>",
                        "Content-Type",
                        "text/xml");
        assertThat(overSoap.status()).isEqualTo(429);
        assertThat(overSoap.whole().body()).contains("Fault", "2 times a minute");
        assertThat(Marina.get(Marina.CONSULTANT, "/manage/v1/metrics").whole().body())
                .contains("sandpiper_calls_limited_total{client=\"eager-ferry\"}");

        patch("eager-ferry", "{\"callsPerMinute\": 0}");
        assertThat(Marina.get(ferry, BERTHS).header("RateLimit")).isEmpty();
    }

    @Test
    void onlyPagesOfPlacesThatAreConfiguredMayCallFromABrowser() {
        var asked =
                Marina.call(
                        "",
                        "OPTIONS",
                        BERTHS,
                        "",
                        "Origin",
                        "https://booking.example",
                        "Access-Control-Request-Method",
                        "PATCH",
                        "Access-Control-Request-Headers",
                        "authorization,if-match");
        assertThat(asked.status()).isEqualTo(200);
        assertThat(asked.header("Access-Control-Allow-Origin"))
                .isEqualTo("https://booking.example");
        assertThat(asked.header("Access-Control-Allow-Methods")).contains("PATCH");
        assertThat(asked.header("Access-Control-Allow-Headers")).contains("if-match");
        assertThat(asked.header("Access-Control-Allow-Credentials")).isEmpty();

        var read =
                Marina.call(Marina.BOOKING, "GET", BERTHS, "", "Origin", "https://booking.example");
        assertThat(read.status()).isEqualTo(200);
        assertThat(read.header("Access-Control-Expose-Headers")).contains("ETag", "Retry-After");

        var stranger =
                Marina.call(
                        Marina.BOOKING, "GET", BERTHS, "", "Origin", "https://stranger.example");
        assertThat(stranger.status()).isEqualTo(403);
        var console =
                Marina.call(
                        Marina.CONSULTANT,
                        "GET",
                        "/manage/v1/clients",
                        "",
                        "Origin",
                        "https://booking.example");
        assertThat(console.header("Access-Control-Allow-Origin")).isEmpty();
    }
}
