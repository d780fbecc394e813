package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.client.ManageClient.escape;
import static sandpiper.e2e.Marina.BOOKING;
import static sandpiper.e2e.Marina.call;
import static sandpiper.e2e.Marina.get;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Whatever comes in, what goes out says what to do, and nothing of the inside. */
@ExtendWith(Marina.class)
class BadInputTest {
    private static final String STAYS = "/api/berth-desk/v1/stays";

    private static void assertClear(Marina.Answer answer, int status, String... words) {
        assertThat(answer.status()).as(answer.whole().body()).isEqualTo(status);
        assertThat(answer.header("Content-Type")).startsWith("application/problem+json");
        assertThat(answer.whole().body())
                .doesNotContain("Exception", "sandpiper.", "select ", "at org.");
        for (var word : words) {
            assertThat(answer.whole().body()).contains(word);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            textBlock =
                    """
                    {"a": 1,,}            | not JSON at line 1, column 9
                    {"a": 1               | not JSON
                    [1, 2]                | must be a JSON object
                    "text"                | must be a JSON object
                    {"a": 1} {"b": 2}     | behind its end
                    {"a": 1, "a": 2}      | not JSON
                    {"a": NaN}            | not JSON
                    ``                    | The body is empty
                    """)
    void malformedJsonIsToldByPlace(String body, String words) {
        assertClear(call(BOOKING, "POST", STAYS, body), 400, words);
    }

    @Test
    void bombsAreRefused() {
        assertClear(call(BOOKING, "POST", STAYS, "[".repeat(100_000)), 400, "not JSON");
        assertClear(call(BOOKING, "POST", STAYS, "{\"a\":".repeat(1_000)), 400, "not JSON");
        assertClear(
                call(BOOKING, "POST", STAYS, "{\"remarks\": 1" + "0".repeat(5_000) + "}"),
                400,
                "not JSON");
        var huge = new byte[50_000_000];
        Arrays.fill(huge, (byte) ' ');
        assertClear(call(BOOKING, "POST", STAYS, huge), 413, "5,242,880 bytes");
    }

    @Test
    void brokenTextIsRefused() {
        var broken = "{\"remarks\": \"\u00ff\"}".getBytes(StandardCharsets.ISO_8859_1);
        assertClear(call(BOOKING, "PATCH", STAYS + "/ST-2026-000003", broken), 400, "not JSON");
        assertClear(
                call(BOOKING, "PATCH", STAYS + "/ST-2026-000003", "{\"remarks\": \"\\ud800\"}"),
                422,
                "not text");
        assertClear(
                call(
                        BOOKING,
                        "PATCH",
                        STAYS + "/ST-2026-000003",
                        "{\"remarks\": \"" + "x".repeat(1_001) + "\"}"),
                422,
                "1,000 characters");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            textBlock =
                    """
                    filter=stat = "x"                    | Did you mean state?
                    filter=state = "Alongsid"            | Did you mean "Alongside"?
                    filter=arrival > 5                   | cannot be compared
                    filter=1 = 1; drop table Stay        | filter
                    filter=remarks = "x"                 | has no field
                    filter=vessel.owner.email = "x"      | has no field
                    filter=((((                          | stops too early
                    sort=arival                          | Did you mean arrival?
                    sort=vessel                          | cannot sort by
                    limit=0                              | from 1 to 500
                    limit=many                           | from 1 to 500
                    after=AAAA                           | not a cursor
                    fields=numbr                         | Did you mean number?
                    count=maybe                          | true or false
                    fliter=x                             | Did you mean filter?
                    """)
    void aQueryThatIsNoneSaysWhatCanBeAsked(String query, String words) {
        int equals = query.indexOf('=');
        var answer =
                get(
                        BOOKING,
                        STAYS
                                + "?"
                                + query.substring(0, equals + 1)
                                + escape(query.substring(equals + 1)));

        assertClear(answer, 400);
        assertThat(answer.json().path("detail").asString()).contains(words);
    }

    @Test
    void aCursorFitsOnlyTheQueryItCameFrom() {
        var next = get(BOOKING, STAYS + "?limit=2&sort=arrival").json().path("next").asString();

        assertThat(get(BOOKING, STAYS + "?limit=2&sort=arrival&after=" + next).status())
                .isEqualTo(200);
        assertClear(
                get(BOOKING, STAYS + "?limit=2&sort=-arrival&after=" + next), 400, "not a cursor");
        assertClear(
                get(BOOKING, STAYS + "?limit=2&sort=arrival&after=" + next.substring(1)),
                400,
                "not a cursor");
    }

    @Test
    void wrongAddressesAndKindsOfContentAreTold() {
        assertClear(get(BOOKING, "/api/berth-desk/v1/stay"), 404, "Did you mean stays?");
        assertClear(get(BOOKING, "/api/berth-desk/v7/stays"), 404, "no service");
        assertClear(get(BOOKING, STAYS + "/ST-1"), 404, "There is no Stay");
        assertClear(call(BOOKING, "PUT", STAYS, "{}"), 405);
        assertClear(
                call(BOOKING, "POST", STAYS, "<stay/>", "Content-Type", "application/xml"),
                415,
                "application/json");
        assertClear(
                call(BOOKING, "POST", STAYS, "{}", "Content-Type", "nonsense"),
                415,
                "application/json");
        assertThat(call(BOOKING, "OPTIONS", STAYS, "").header("Allow"))
                .isEqualTo("GET, HEAD, POST, OPTIONS");
        assertClear(
                call(BOOKING, "POST", "/api/berth-desk/v1/berths", "{}"),
                405,
                "does not offer create");
        assertClear(
                call(BOOKING, "PATCH", STAYS + "/ST-2026-000003", "{}", "If-Match", "three"),
                400,
                "ETag");
    }

    @Test
    void aFileOutsideItsPackageIsRefused() {
        var body = "{\"path\": \"../../etc/x.yaml\", \"text\": \"a: b\"}";
        assertClear(
                call(Marina.CONSULTANT, "PUT", "/manage/v1/draft/file", body), 400, "path such as");
        var sealed = "{\"path\": \"harbour/objects/pier.yaml\", \"text\": \"a: b\"}";
        assertClear(
                call(Marina.CONSULTANT, "PUT", "/manage/v1/draft/file", sealed),
                409,
                "delivered package");
    }

    @Test
    void noiseIsNeverAnErrorOfOurs() {
        var random = new Random(7);
        for (int i = 0; i < 500; i++) {
            var noise = new byte[random.nextInt(60)];
            random.nextBytes(noise);
            var body = call(BOOKING, "POST", STAYS, noise);
            var query =
                    get(
                            BOOKING,
                            STAYS
                                    + "?filter="
                                    + escape(new String(noise, StandardCharsets.ISO_8859_1))
                                    + "&limit=1");
            assertThat(body.status()).isBetween(400, 499);
            assertThat(query.status()).isBetween(200, 499);
        }
    }
}
