package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.client.ManageClient.escape;
import static sandpiper.e2e.Marina.BOOKING;
import static sandpiper.e2e.Marina.call;
import static sandpiper.e2e.Marina.get;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** What an integrator does with the booking site's service. */
@Tag("each-engine")
@ExtendWith(Marina.class)
class RestJourneyTest {
    private static final String STAYS = "/api/berth-desk/v1/stays";
    private static final String STAY =
            """
            {"vessel": "GH-101", "berth": "H-10", "arrival": "2027-05-01", "departure": "2027-05-04",
             "charges": [{"tariff": "POWER", "quantity": 2.5}, {"tariff": "ENV"}]}\
            """;

    private static JsonNode created() {
        return call(BOOKING, "POST", STAYS, STAY).json();
    }

    private static List<String> messages(JsonNode problem) {
        var messages = new ArrayList<String>();
        problem.path("errors")
                .forEach(error ->
                        messages.add(
                                error.path("pointer").asString()
                                        + " "
                                        + error.path("message").asString()));
        return messages;
    }

    @Test
    void createsReadsChangesAndRetiresAStay() {
        var made = call(BOOKING, "POST", STAYS, STAY);

        assertThat(made.status()).isEqualTo(201);
        assertThat(made.header("ETag")).isEqualTo("\"1\"");
        var stay = get(BOOKING, made.header("Location")).json();
        assertThat(stay.path("number").asString()).startsWith("ST-");
        assertThat(stay.path("state").asString()).isEqualTo("Requested");
        assertThat(stay.path("vessel").path("key").asString()).isEqualTo("GH-101");
        assertThat(stay.path("vessel").path("owner").path("name").asString())
                .isEqualTo("Tilda Moor");
        assertThat(stay.path("charges").path(1).toString())
                .contains("\"line\":2", "\"quantity\":1.00");

        var changed =
                call(
                        BOOKING,
                        "PATCH",
                        made.header("Location"),
                        "{\"remarks\": \"arrives late\", \"charges\": [{\"line\": 2, \"quantity\":"
                                + " 3}]}",
                        "If-Match",
                        "\"1\"",
                        "Content-Type",
                        "application/merge-patch+json");
        assertThat(changed.status()).isEqualTo(200);
        assertThat(changed.json().path("charges"))
                .singleElement()
                .hasToString(
                        "{\"line\":2,\"tariff\":\"ENV\",\"quantity\":3.00,\"unitPrice\":6.50,\"vat\":19.00,\"net\":19.50,\"gross\":23.21,\"costCentre\":null}");

        var stale =
                call(
                        BOOKING,
                        "PATCH",
                        made.header("Location"),
                        "{\"remarks\": null}",
                        "If-Match",
                        "\"1\"");
        assertThat(stale.status()).isEqualTo(412);
        assertThat(stale.json().path("detail").asString()).contains("read it again");

        assertThat(call(BOOKING, "DELETE", made.header("Location"), "").status()).isEqualTo(204);
        var filter = escape("number = \"" + stay.path("number").asString() + "\"");
        assertThat(get(BOOKING, STAYS + "?filter=" + filter).json().path("items")).isEmpty();
    }

    @Test
    void tellsEveryFaultAtItsPlace() {
        var refused =
                call(
                        BOOKING,
                        "POST",
                        STAYS,
                        """
                        {"vessel": "GH-999", "berth": 7, "arival": "2027-05-01", "departure": "2027-02-30", "number": "mine",
                         "charges": [{"tariff": "POWER", "quantity": 1.005}, {"quantity": "two"}]}\
                        """);

        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.header("Content-Type")).isEqualTo("application/problem+json");
        assertThat(messages(refused.json()))
                .containsExactlyInAnyOrder(
                        "/vessel Vessel: there is no Vessel \"GH-999\".",
                        "/berth Berth must be the key of a Berth (code) as text.",
                        "/arival Stay has no field \"arival\" here. Did you mean arrival?",
                        "/arrival Arrival is required.",
                        "/departure Departure must be a date, as in 2026-05-01, but was"
                                + " \"2027-02-30\".",
                        "/number Number cannot be written here.",
                        "/charges/0/quantity Quantity may have 2 decimal places, but was 1.005.",
                        "/charges/1/quantity Quantity must be a number, but was \"two\".",
                        "/charges/1/tariff Tariff is required.");
    }

    @Test
    void aRepeatedRequestIsDoneOnceAndAnsweredAlike() {
        var first = call(BOOKING, "POST", STAYS, STAY, "Idempotency-Key", "journey-1");
        var again = call(BOOKING, "POST", STAYS, STAY, "Idempotency-Key", "journey-1");
        var other =
                call(
                        BOOKING,
                        "POST",
                        STAYS,
                        STAY.replace("2.5", "3"),
                        "Idempotency-Key",
                        "journey-1");

        assertThat(again.status()).isEqualTo(201);
        assertThat(again.whole().body()).isEqualTo(first.whole().body());
        assertThat(again.header("Location")).isEqualTo(first.header("Location"));
        assertThat(again.header("Idempotent-Replayed")).isEqualTo("true");
        assertThat(other.status()).isEqualTo(409);
    }

    @Test
    void walksThroughAllPagesWithoutMissingOrRepeatingOne() {
        var seen = new HashSet<String>();
        var path =
                STAYS
                        + "?limit=37&sort=-arrival&count=true&fields=number,arrival&filter="
                        + escape("state = \"Departed\" and arrival < date(\"2027-01-01\")");
        long total = get(BOOKING, path).json().path("count").asLong();
        String before = "9999";
        for (var next = path; next != null; ) {
            var page = get(BOOKING, next);
            for (var stay : page.json().path("items")) {
                assertThat(seen.add(stay.path("number").asString())).isTrue();
                assertThat(stay.path("arrival").asString()).isLessThanOrEqualTo(before);
                assertThat(stay.has("state")).isFalse();
                before = stay.path("arrival").asString();
            }
            var link = page.header("Link");
            next = link.isEmpty() ? null : link.substring(1, link.indexOf('>'));
        }

        assertThat(seen).hasSize((int) total).hasSizeGreaterThan(200);
    }

    @Test
    void savesByKeyWhetherTheVesselIsKnownOrNot() {
        var vessels = "/api/berth-desk/v1/vessels/" + escape("XL/7 \"⛵\"");
        var body = "{\"name\": \"Far Tern\", \"length\": 8.2, \"owner\": \"OW-0003\"}";

        var made = call(BOOKING, "PUT", vessels, body);
        var changed = call(BOOKING, "PUT", vessels, "{\"name\": \"Fair Tern\"}");

        assertThat(made.status()).as(made.whole().body()).isEqualTo(201);
        assertThat(changed.status()).as(changed.whole().body()).isEqualTo(200);
        assertThat(get(BOOKING, made.header("Location")).json().path("name").asString())
                .isEqualTo("Fair Tern");
        assertThat(made.json().path("registration").asString()).isEqualTo("XL/7 \"⛵\"");
    }

    @Test
    void aBatchHasAResultForEachItem() {
        var batch =
                call(
                        BOOKING,
                        "POST",
                        STAYS + ":batch",
                        """
                        {"items": [{"do": "create", "values": %s},
                                   {"do": "create", "values": {"vessel": "GH-101"}},
                                   {"do": "update", "key": "ST-2026-000007", "values": {"remarks": "window berth"}}]}\
                        """
                                .formatted(STAY));

        assertThat(batch.status()).isEqualTo(200);
        var results = batch.json().path("results");
        assertThat(results.path(0).path("status").asInt()).isEqualTo(201);
        assertThat(messages(results.path(1).path("problem"))).contains("/berth Berth is required.");
        assertThat(results.path(2).path("key").asString()).isEqualTo("ST-2026-000007");
        assertThat(batch.json().path("failed").asInt()).isEqualTo(1);
    }

    @Test
    void answersWithNothingWhenWhatTheCallerHasIsStillRight() {
        var read = get(BOOKING, STAYS + "/ST-2026-000010");

        assertThat(
                        call(
                                        BOOKING,
                                        "GET",
                                        STAYS + "/ST-2026-000010",
                                        "",
                                        "If-None-Match",
                                        read.header("ETag"))
                                .status())
                .isEqualTo(304);
    }

    @Test
    void nothingIsOpenToStrangersAndClientsDoOnlyWhatIsGranted() {
        var port = "port-authority:tide-tables-2026";

        assertThat(get("", STAYS).status()).isEqualTo(401);
        assertThat(get("booking-site:wrong", STAYS).status()).isEqualTo(401);
        assertThat(get("", "/manage/v1/status").status()).isEqualTo(401);
        assertThat(get(BOOKING, "/manage/v1/status").status()).isEqualTo(401);
        assertThat(get("", "/api/berth-desk/v1/openapi.json").status()).isEqualTo(401);
        assertThat(get(port, STAYS).status()).isEqualTo(404);
        assertThat(get(port, "/api/vessel-registry/v1/vessels/GH-101").status()).isEqualTo(200);
        assertThat(call(port, "POST", "/api/vessel-registry/v1/owners", "{}").status())
                .isEqualTo(403);
        assertThat(get(Marina.CLERK, "/manage/v1/draft").status()).isEqualTo(403);
        assertThat(get(Marina.CLERK, "/manage/v1/records/Stay?limit=1").status()).isEqualTo(200);
    }

    @Test
    void keepsWhoChangedWhat() {
        var stay = created().path("number").asString();
        call(BOOKING, "PATCH", STAYS + "/" + stay, "{\"berth\": \"H-11\"}");

        var newest =
                get(Marina.CLERK, "/manage/v1/records/Stay/" + stay + "/history")
                        .json()
                        .path("entries")
                        .path(0);

        assertThat(newest.path("by").asString()).isEqualTo("booking-site");
        assertThat(newest.path("via").asString()).isEqualTo("berth-desk v1");
        assertThat(newest.path("changes").toString())
                .isEqualTo("[{\"path\":\"berth\",\"before\":\"H-10\",\"after\":\"H-11\"}]");
    }

    @Test
    void aResourceShowsOnlyItsRecordsAndPresetsWhatNobodyGives() {
        var tablet = "yard-tablet:sandpaper-and-varnish";
        var report =
                call(
                        tablet,
                        "POST",
                        "/api/yard/v1/reports",
                        "{\"vessel\": \"GH-101\", \"title\": \"Bilge pump runs\"}");
        assertThat(report.status()).isEqualTo(201);
        var number = report.json().path("number").asString();

        var kept = get(Marina.CONSULTANT, "/manage/v1/records/WorkRequest/" + number).json();
        assertThat(kept.path("values").path("priority").asString()).isEqualTo("urgent");
        assertThat(
                        call(
                                        tablet,
                                        "POST",
                                        "/api/yard/v1/reports",
                                        "{\"vessel\": \"GH-101\", \"title\": \"x\","
                                                + " \"priority\": \"low\"}")
                                .whole()
                                .body())
                .contains("cannot be written here");
        // Reported is neither planned nor being worked on.
        var jobs = "/api/yard/v1/jobs/";
        assertThat(get(tablet, jobs + number).status()).isEqualTo(404);
        assertThat(call(tablet, "PATCH", jobs + number, "{\"details\": \"x\"}").status())
                .isEqualTo(404);
        assertThat(call(tablet, "POST", jobs + number + "/start", "").status()).isEqualTo(404);
        var all = get(tablet, "/api/yard/v1/jobs?count=true&sort=-dueOn").json();
        assertThat(all.path("count").asInt()).isPositive();
        all.path("items")
                .forEach(item ->
                        assertThat(item.path("state").asString()).isIn("Planned", "Working"));
        var late = get(tablet, "/api/yard/v1/jobs?filter=overdue&count=true").json();
        assertThat(late.path("count").asInt()).isLessThanOrEqualTo(all.path("count").asInt());
        late.path("items").forEach(item -> assertThat(item.path("overdue").asBoolean()).isTrue());
    }

    @Test
    void aChangeMustSayItsVersionWhereTheServiceDemandsIt() {
        var tablet = "yard-tablet:sandpaper-and-varnish";
        var job = get(tablet, "/api/yard/v1/jobs?limit=1").json().path("items").path(0);
        var path = "/api/yard/v1/jobs/" + job.path("number").asString();
        var change = "{\"details\": \"Sand and varnish\"}";

        var blind = call(tablet, "PATCH", path, change);
        assertThat(blind.status()).isEqualTo(428);
        assertThat(blind.json().path("detail").asString())
                .startsWith("A change of this Work request must say which version it is based on");
        assertThat(call(tablet, "PATCH", path, change, "If-Match", "*").status()).isEqualTo(428);
        assertThat(call(tablet, "POST", path + "/finish", "").status()).isEqualTo(428);

        var tag = get(tablet, path).header("ETag");
        var done = call(tablet, "PATCH", path, change, "If-Match", tag);
        assertThat(done.status()).isEqualTo(200);
        assertThat(call(tablet, "PATCH", path, change, "If-Match", tag).status()).isEqualTo(412);

        var batch =
                "{\"items\": [{\"do\": \"update\", \"key\": \"%1$s\", \"values\": %2$s}, {\"do\": \"update\", \"key\": \"%1$s\", \"version\": %3$s, \"values\": %2$s}]}"
                        .formatted(
                                job.path("number").asString(),
                                "{\"details\": \"Varnish twice\"}",
                                done.header("ETag").replace("\"", ""));
        var results = call(tablet, "POST", "/api/yard/v1/jobs:batch", batch).json().path("results");
        assertThat(results.path(0).path("status").asInt()).isEqualTo(428);
        assertThat(results.path(1).path("status").asInt()).isEqualTo(200);
        assertThat(
                        get(Marina.CONSULTANT, "/manage/v1/contracts/yard/v1/openapi.json")
                                .whole()
                                .body())
                .contains("#/components/parameters/ifMatchNeeded", "\"428\"");
    }

    @Test
    void longAnswersAreCompressedForThoseWhoTakeIt() {
        var plain = get(Marina.BOOKING, "/api/berth-desk/v1/berths?limit=50");
        var packed =
                call(
                        Marina.BOOKING,
                        "GET",
                        "/api/berth-desk/v1/berths?limit=50",
                        "",
                        "Accept-Encoding",
                        "gzip");
        assertThat(plain.header("Content-Encoding")).isEmpty();
        assertThat(packed.header("Content-Encoding")).isEqualTo("gzip");
        assertThat(packed.header("Vary")).containsIgnoringCase("accept-encoding");
        assertThat(packed.whole().body().length()).isLessThan(plain.whole().body().length() / 2);
    }

    @Test
    void theClientOfTheGuideWorks() throws Exception {
        var program = Marina.repository().resolve("docs/guide/clients/booking-site.mjs");
        var site = Marina.BOOKING.split(":");
        var address = Marina.address() + "/api/berth-desk/v1";

        assertThat(
                        Program.run(
                                Marina.repository(),
                                List.of("node", program.toString(), address, site[0], site[1])))
                .containsPattern("\\d+ berths with power")
                .contains("asked for, 3 nights, 1 charge", "412: changed meanwhile")
                .contains("Cancelled, version 3")
                .contains("refused at /berth: Berth: there is no Berth \"NOWHERE\".");
    }
}
