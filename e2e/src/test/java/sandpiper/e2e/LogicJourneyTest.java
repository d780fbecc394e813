package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.client.ManageClient.escape;
import static sandpiper.e2e.Marina.BOOKING;
import static sandpiper.e2e.Marina.CLERK;
import static sandpiper.e2e.Marina.CONSULTANT;
import static sandpiper.e2e.Marina.call;
import static sandpiper.e2e.Marina.get;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** A stay from the first mistake to the pier that closes itself, and why. */
@Tag("each-engine")
@ExtendWith(Marina.class)
class LogicJourneyTest {
    private static final String STAYS = "/api/berth-desk/v1/stays";
    private static final String RECORDS = "/manage/v1/records/";

    private static List<String> errors(Marina.Answer answer) {
        var errors = new ArrayList<String>();
        answer.json()
                .path("errors")
                .forEach(error ->
                        errors.add(
                                error.path("pointer").asString()
                                        + " "
                                        + error.path("message").asString()));
        return errors;
    }

    private static String vessel(String registration, int power) {
        var made =
                call(
                        CLERK,
                        "POST",
                        RECORDS + "Vessel",
                        """
                        {"registration": "%s", "name": "Tern", "kind": "sail", "length": 9, "draught": 1.2,
                         "shorePower": %d, "insuredUntil": "2026-12-01", "owner": "OW-0001"}\
                        """
                                .formatted(registration, power));
        assertThat(made.status()).as(made.whole().body()).isEqualTo(201);
        return registration;
    }

    private static JsonNode pier(String code) {
        return get(CLERK, RECORDS + "Pier/" + code).json().path("values");
    }

    @Test
    void aStayIsRefusedCorrectedAndConfirmedAndItsTotalsAreRight() {
        vessel("T-JOURNEY", 10);
        var wrong =
                call(
                        BOOKING,
                        "POST",
                        STAYS,
                        """
                        {"vessel": "T-JOURNEY", "berth": "N-01", "arrival": "2027-06-05", "departure": "2027-06-04",
                         "charges": [{"tariff": "POWER", "quantity": 0}]}\
                        """);

        assertThat(wrong.status()).isEqualTo(422);
        assertThat(errors(wrong))
                .anyMatch(
                        error -> error.startsWith("/berth Berth: Berth \"N-01\" cannot be chosen"))
                .contains(
                        "/departure Departure must be after arrival (2027-06-05).",
                        "/charges/0/quantity The quantity of POWER must be above 0, but is 0.");

        var made =
                call(
                        BOOKING,
                        "POST",
                        STAYS,
                        """
                        {"vessel": "T-JOURNEY", "berth": "N-10", "arrival": "2027-06-05", "departure": "2027-06-08",
                         "charges": [{"tariff": "POWER", "quantity": 10}]}\
                        """);
        var stay = made.json();
        assertThat(made.status()).as(made.whole().body()).isEqualTo(201);
        double rate = stay.path("nightlyRate").asDouble();
        assertThat(stay.path("nights").asInt()).isEqualTo(3);
        assertThat(stay.path("netTotal").asDouble()).isEqualTo(3 * rate + 4.5);
        assertThat(stay.path("charges").path(0).path("gross").asDouble()).isEqualTo(5.36);

        var confirm = made.header("Location") + "/confirm";
        assertThat(errors(call(BOOKING, "POST", confirm, "")))
                .containsExactly(
                        "/vessel Tern must be insured until 2027-06-15, but is only until"
                                + " 2026-12-01.");
        call(CLERK, "PATCH", RECORDS + "Vessel/T-JOURNEY", "{\"insuredUntil\": \"2028-01-01\"}");
        var confirmed = call(BOOKING, "POST", confirm, "");
        assertThat(confirmed.status()).isEqualTo(200);
        assertThat(confirmed.json().path("state").asString()).isEqualTo("Confirmed");
        assertThat(call(BOOKING, "POST", confirm, "").status()).isEqualTo(409);
    }

    @Test
    void aPierClosesOnceWhenItsPowerIsNearlyUsedUpAndTellsWhy() {
        int capacity = pier("E").path("powerCapacity").asInt();
        int drawn = pier("E").path("powerDrawn").asInt();
        vessel("T-LARGE", capacity - drawn);
        call(CLERK, "PATCH", RECORDS + "Vessel/T-LARGE", "{\"insuredUntil\": \"2029-01-01\"}");
        var made =
                call(
                        BOOKING,
                        "POST",
                        STAYS,
                        """
                        {"vessel": "T-LARGE", "berth": "E-10", "arrival": "2028-06-05", "departure": "2028-06-08"}\
                        """);
        assertThat(made.status()).as(made.whole().body()).isEqualTo(201);
        var at = made.header("Location");
        call(BOOKING, "POST", at + "/confirm", "");
        assertThat(pier("E").path("open").asBoolean()).isTrue();

        var moored = call(BOOKING, "POST", at + "/check-in", "", "Sandpiper-Trace", "on");

        assertThat(moored.status()).as(moored.whole().body()).isEqualTo(200);
        assertThat(moored.header("Sandpiper-Warnings")).contains("Pier E draws");
        assertThat(pier("E").path("open").asBoolean()).isFalse();
        assertThat(pier("E").path("powerDrawn").asInt()).isEqualTo(capacity);
        var trace = get(CONSULTANT, "/manage/v1/traces/" + moored.header("Sandpiper-Trace")).json();
        assertThat(trace.path("steps").toString())
                .contains("powerHigh", "powerDrawn > 0.9 * powerCapacity and open");
        assertThat(
                        get(CLERK, RECORDS + "Pier/E/history")
                                .json()
                                .path("entries")
                                .path(0)
                                .path("changes")
                                .toString())
                .contains("open");

        call(BOOKING, "POST", at + "/check-out", "");
        assertThat(pier("E").path("open").asBoolean()).isTrue();
    }

    @Test
    void logicIsTriedAndCompletedThroughTheManageApi() {
        var tried =
                call(
                                CONSULTANT,
                                "POST",
                                "/manage/v1/trials",
                                """
                                {"logic": {"role": "FORMULA", "object": "Stay", "text": "nights + 1"},
                                 "key": "ST-2026-000042", "values": {"departure": "2026-02-12"}}\
                                """)
                        .json();
        var offered =
                call(
                                CONSULTANT,
                                "POST",
                                "/manage/v1/logic/complete?place=8",
                                """
                                {"role": "CHECK", "object": "Stay", "text": "state = "}\
                                """)
                        .json();

        assertThat(tried.path("value").asString()).isEqualTo("3");
        assertThat(offered.path("items").path(0).path("label").asString())
                .isEqualTo("\"Requested\"");
        assertThat(
                        call(
                                        CLERK,
                                        "POST",
                                        "/manage/v1/trials",
                                        "{\"logic\": {\"role\": \"EXPRESSION\", \"text\": \"1\"}}")
                                .status())
                .isEqualTo(403);
    }

    @Test
    void aPickListOffersOnlyWhatFits() {
        vessel("T-PICK", 0);
        var offers =
                call(
                                CLERK,
                                "POST",
                                "/manage/v1/trials/offers/Stay/berth",
                                "{\"values\": {\"vessel\": \"T-PICK\"}, \"item\": 0, \"search\":"
                                        + " \"N-\"}")
                        .json();

        assertThat(offers.path("records")).isNotEmpty();
        offers.path("records")
                .forEach(berth ->
                        assertThat(berth.path("values").path("maxLength").asDouble())
                                .isGreaterThanOrEqualTo(9));
    }

    @Test
    void derivedFieldsCanBeFilteredAndSorted() {
        var page =
                get(
                                CLERK,
                                RECORDS
                                        + "Stay?filter="
                                        + escape("grossTotal > 500 and nights >= 10")
                                        + "&sort=-grossTotal&limit=5")
                        .json()
                        .path("records");

        assertThat(page).isNotEmpty();
        assertThat(page.path(0).path("values").path("grossTotal").asDouble())
                .isGreaterThanOrEqualTo(page.path(1).path("values").path("grossTotal").asDouble());
    }
}
