package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.e2e.Marina.BOOKING;
import static sandpiper.e2e.Marina.CLERK;
import static sandpiper.e2e.Marina.CONSULTANT;
import static sandpiper.e2e.Marina.call;
import static sandpiper.e2e.Marina.get;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;

/** Functions of the marina, called over each protocol and by people. */
@ExtendWith(Marina.class)
class FunctionsJourneyTest {
    private static final String STAYS = "/api/berth-desk/v1/stays";
    private static final String RECORDS = "/manage/v1/records/";
    private static int year = 2035;

    /** A stay that is confirmed, each in a year of its own; gives its address. */
    private static String confirmed() {
        if (get(CLERK, RECORDS + "Vessel/F-FUNC").status() == 404) {
            call(
                    CLERK,
                    "POST",
                    RECORDS + "Vessel",
                    """
                    {"registration": "F-FUNC", "name": "Ferrule", "kind": "sail", "length": 8, "beam": 3,
                     "draught": 1, "insuredUntil": "2090-01-01", "owner": "OW-0040"}
                    """);
        }
        int in = year++;
        var made =
                call(
                        BOOKING,
                        "POST",
                        STAYS,
                        """
                        {"vessel": "F-FUNC", "berth": "H-10", "arrival": "%d-05-01", "departure": "%d-05-04"}
                        """
                                .formatted(in, in));
        assertThat(made.status()).as(made.whole().body()).isEqualTo(201);
        var at = made.header("Location");
        assertThat(call(BOOKING, "POST", at + "/confirm", "").status()).isEqualTo(200);
        return at;
    }

    private static String key(String address) {
        return address.substring(address.lastIndexOf('/') + 1);
    }

    @Test
    void aStayIsCheckedInAndOutWithItsMeterOverRest() {
        var at = confirmed();

        var in = call(BOOKING, "POST", at + "/check-in", "{\"meter\": 100.5}");
        var backwards = call(BOOKING, "POST", at + "/check-out", "{\"meter\": 99}");
        var out = call(BOOKING, "POST", at + "/check-out", "{\"meter\": 110.5}");

        assertThat(in.status()).as(in.whole().body()).isEqualTo(200);
        assertThat(in.json().path("result").asString()).isEqualTo("Welcome, Ferrule");
        assertThat(in.json().path("record").path("state").asString()).isEqualTo("Alongside");
        assertThat(backwards.status()).isEqualTo(422);
        assertThat(backwards.json().path("errors").path(0).path("pointer").asString())
                .isEqualTo("/meter");
        assertThat(backwards.json().path("detail").asString())
                .isEqualTo("The meter stood at 100.5 when the vessel came; it cannot show 99.");
        var record = out.json().path("record");
        assertThat(record.path("charges").path(0).path("quantity").asDouble()).isEqualTo(10);
        assertThat(out.json().path("result").decimalValue())
                .isEqualByComparingTo(record.path("grossTotal").decimalValue());
    }

    @Test
    void aQuoteNeedsNoRecord() {
        var quoted =
                call(
                        BOOKING,
                        "POST",
                        "/api/berth-desk/v1/quote",
                        "{\"length\": 8, \"nights\": 2, \"season\": \"high\"}");
        var wrong =
                call(
                        BOOKING,
                        "POST",
                        "/api/berth-desk/v1/quote",
                        "{\"length\": \"long\", \"nigths\": 2}");

        assertThat(quoted.json().path("result").asDouble()).isPositive();
        assertThat(wrong.status()).isEqualTo(422);
        assertThat(wrong.json().path("errors").toString())
                .contains("/length", "/nigths", "Did you mean nights?", "/nights");
    }

    @Test
    void whatIsRepeatedIsDoneOnce() {
        var at = confirmed();

        var first =
                call(BOOKING, "POST", at + "/check-in", "{}", "Idempotency-Key", "in-" + key(at));
        var again =
                call(BOOKING, "POST", at + "/check-in", "{}", "Idempotency-Key", "in-" + key(at));

        assertThat(again.header("Idempotent-Replayed")).isEqualTo("true");
        assertThat(again.whole().body()).isEqualTo(first.whole().body());
    }

    @Test
    void functionsAreActionsAndFunctionsOverOData() {
        var number = key(confirmed());
        var service = "/odata/berth-desk/v1/";

        var in =
                call(
                        BOOKING,
                        "POST",
                        service + "stays('" + number + "')/checkIn",
                        "{\"meter\": 5.5}");
        var quote = get(BOOKING, service + "quote(length=8,nights=2,season='high')");
        var out = call(BOOKING, "POST", service + "stays('" + number + "')/checkOut", "{}");

        assertThat(in.status()).as(in.whole().body()).isEqualTo(200);
        assertThat(in.json().path("value").asString()).isEqualTo("Welcome, Ferrule");
        assertThat(in.json().path("@odata.context").asString()).endsWith("$metadata#Edm.String");
        assertThat(quote.status()).as(quote.whole().body()).isEqualTo(200);
        assertThat(quote.json().path("value").asDouble()).isPositive();
        assertThat(out.json().path("value").asDouble()).isPositive();
        assertThat(get(BOOKING, service + "$metadata").whole().body())
                .contains(
                        "<FunctionImport Name=\"quote\"",
                        "<Action Name=\"checkIn\"",
                        "<Parameter Name=\"meter\" Type=\"Edm.Decimal\"");
    }

    @Test
    void aBatchCallsForEachItem() {
        var one = key(confirmed());
        var two = key(confirmed());

        var answer =
                call(
                                BOOKING,
                                "POST",
                                STAYS + ":batch",
                                """
                                {"items": [
                                  {"do": "call", "call": "check-in", "key": "%s", "values": {"meter": 1}},
                                  {"do": "call", "call": "check-in", "key": "ST-NONE", "values": {}},
                                  {"do": "call", "call": "check-in", "key": "%s", "values": {}}]}
                                """
                                        .formatted(one, two))
                        .json();

        assertThat(answer.path("done").asInt()).as(answer.toString()).isEqualTo(2);
        assertThat(answer.path("results").path(0).path("result").asString())
                .isEqualTo("Welcome, Ferrule");
        assertThat(answer.path("results").path(1).path("status").asInt()).isEqualTo(404);
    }

    @Test
    void whatIsNotGrantedIsNotCalled() {
        var made =
                call(
                        CONSULTANT,
                        "POST",
                        "/manage/v1/clients",
                        "{\"name\": \"quoter\", \"label\": \"Quotes\", \"grants\":"
                                + " [\"berth-desk/functions/quote\"]}");
        assertThat(made.status()).as(made.whole().body()).isLessThan(300);
        var who = "quoter:" + made.json().path("secret").asString();

        assertThat(
                        call(
                                        who,
                                        "POST",
                                        "/api/berth-desk/v1/quote",
                                        "{\"length\": 8, \"nights\": 1}")
                                .status())
                .isEqualTo(200);
        assertThat(call(who, "POST", STAYS + "/ST-2026-000042/check-in", "{}").status())
                .isEqualTo(403);
    }

    @Test
    void peopleCallOnManyRecordsAndTryWithoutKeepingAnything() {
        var one = key(confirmed());
        var two = key(confirmed());

        var tried =
                call(
                                CONSULTANT,
                                "POST",
                                "/manage/v1/trial/functions/Stay/checkIn",
                                "{\"key\": \"%s\", \"arguments\": {\"meter\": 7}}".formatted(one))
                        .json();
        assertThat(tried.path("result").asString()).isEqualTo("Welcome, Ferrule");
        assertThat(tried.path("differences").toString()).contains("Alongside", "meterStart");
        assertThat(tried.path("events").path(0).path("name").asString()).isEqualTo("StayBegan");
        assertThat(tried.path("steps")).isNotEmpty();
        assertThat(
                        get(CLERK, RECORDS + "Stay/" + one)
                                .json()
                                .path("values")
                                .path("state")
                                .asString())
                .isEqualTo("Confirmed");

        var each =
                call(
                                CLERK,
                                "POST",
                                "/manage/v1/functions/Stay/checkIn/each",
                                "{\"keys\": [\"%s\", \"ST-NONE\", \"%s\"], \"arguments\": {}}"
                                        .formatted(one, two))
                        .json();
        assertThat(each.path("done").asInt()).isEqualTo(2);
        assertThat(each.path("results").path(1).path("problem").asString()).contains("ST-NONE");
        assertThat(each.path("results").path(0).path("result").asString())
                .isEqualTo("Welcome, Ferrule");
    }
}
