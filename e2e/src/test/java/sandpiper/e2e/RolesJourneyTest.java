package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What people see and do by their roles, and how they come and go. */
@Tag("each-engine")
@ExtendWith(Marina.class)
class RolesJourneyTest {
    private static final String CONSULTANT = "consultant:gullhaven";
    private static final String AUDITOR = "auditor:gullhaven";
    private static final String CLERK = "clerk:gullhaven";
    private static final String RECORDS = "/manage/v1/records/";
    private static final AtomicInteger NUMBER = new AtomicInteger();

    private static Marina.Answer find(String who, String object, String filter) {
        return Marina.get(
                who,
                RECORDS
                        + object
                        + "?count=true&limit=500&filter="
                        + URLEncoder.encode(filter, StandardCharsets.UTF_8));
    }

    @Test
    void recordsOutsideOfARolesConditionAreNotThere() {
        var all = find(AUDITOR, "Stay", "number != null").json();
        var departed = find(CONSULTANT, "Stay", "state = \"Departed\"").json();

        assertThat(all.path("total").asLong()).isEqualTo(departed.path("total").asLong());
        var open = find(CONSULTANT, "Stay", "state != \"Departed\"").json();
        var key = open.path("records").get(0).path("values").path("number").asString();
        assertThat(Marina.get(AUDITOR, RECORDS + "Stay/" + key).status()).isEqualTo(404);
        assertThat(Marina.get(AUDITOR, RECORDS + "Stay/" + key + "/history").status())
                .isEqualTo(404);
        assertThat(Marina.get(CLERK, RECORDS + "Stay/" + key).status()).isEqualTo(200);
    }

    @Test
    void hiddenFieldsAreNowhere() {
        var owner = Marina.get(AUDITOR, RECORDS + "Owner/OW-0040").whole().body();
        assertThat(owner).contains("\"name\"").doesNotContain("\"email\"", "\"phone\"");
        var model = Marina.get(AUDITOR, "/manage/v1/model").json();
        for (var object : model.path("objects")) {
            assertThat(object.path("name").asString()).isNotEqualTo("WorkRequest");
            if (object.path("name").asString().equals("Owner")) {
                assertThat(object.path("fields").toString()).doesNotContain("\"email\"");
            }
        }
        var search = RECORDS + "Owner?search=example&count=true";
        assertThat(Marina.get(AUDITOR, search).json().path("total").asLong()).isZero();
        assertThat(Marina.get(CONSULTANT, search).json().path("total").asLong()).isPositive();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "Owner|email != null|has no field \"email\"",
                "Vessel|owner.email != null|has no field \"email\"",
                "Vessel|count(stays) > 3|has no field \"stays\"",
                "Owner|count(vessels[owner.email != null]) > 0|has no field \"vessels\"",
                "Invoice|stay.vessel.owner.name = \"x\"|has no field \"vessel\"",
                "Invoice|stay.remarks = \"x\"|remarks",
            })
    void whatIsNotSeenCannotBeFoundOutByAsking(String object, String filter, String said) {
        var answer = find(AUDITOR, object, filter);

        assertThat(answer.status()).isEqualTo(400);
        assertThat(answer.json().path("detail").asString()).contains(said);
    }

    @Test
    void whatIsReadOnlyForARoleIsNotChanged() {
        var stay = RECORDS + "Stay/ST-2026-000001";
        var answer = Marina.call(CLERK, "PATCH", stay, "{\"nightlyRate\": 1}");
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.json().path("errors").get(0).path("pointer").asString())
                .isEqualTo("/nightlyRate");
        assertThat(Marina.call(CLERK, "PATCH", RECORDS + "Pier/N", "{\"name\": \"x\"}").status())
                .isEqualTo(403);
        assertThat(Marina.call(AUDITOR, "DELETE", stay, "").status()).isEqualTo(403);
        assertThat(Marina.get(CLERK, "/manage/v1/users").status()).isEqualTo(403);
        assertThat(Marina.get(CLERK, "/manage/v1/draft").status()).isEqualTo(403);
    }

    private static String user(String roles) {
        var name = "person-" + NUMBER.incrementAndGet();
        var answer =
                Marina.call(
                        CONSULTANT,
                        "POST",
                        "/manage/v1/users",
                        "{\"name\": \"%s\", \"password\": \"a-long-password\", \"roles\": [%s]}"
                                .formatted(name, roles));
        assertThat(answer.status()).as(answer.whole().body()).isEqualTo(201);
        return name;
    }

    @Test
    void aConditionHoldsForWhatARecordBecomes() {
        var role =
                """
                {"objects": [{"object": "Berth", "actions": ["VIEW", "CREATE", "EDIT"],
                  "where": "pier.code = \\"N\\""}]}
                """;
        assertThat(Marina.call(CONSULTANT, "PUT", "/manage/v1/roles/north-pier", role).status())
                .isEqualTo(200);
        var who = user("\"north-pier\"") + ":a-long-password";
        var moved = Marina.call(who, "PATCH", RECORDS + "Berth/N-01", "{\"pier\": \"S\"}");
        assertThat(moved.status()).as(moved.whole().body()).isEqualTo(409);
        assertThat(Marina.get(who, RECORDS + "Berth/S-01").status()).isEqualTo(404);
        assertThat(Marina.get(who, RECORDS + "Berth/N-01").status()).isEqualTo(200);
        var removal = Marina.call(CONSULTANT, "DELETE", "/manage/v1/roles/north-pier", "");
        assertThat(removal.json().path("detail").asString()).contains("is held by person-");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "{\"services\": [\"berth-desk/stay/read\"]}|Did you mean stays?",
                "{\"services\": [\"berth-desk\"]}|is no grant",
                "{\"objects\": [{\"object\": \"Stays\", \"actions\": []}]}|Did you mean Stay?",
                "{\"objects\": [{\"object\": \"Stay\", \"actions\": [], \"where\": \"stat ="
                        + " 1\"}]}|The condition is not right",
                "{\"objects\": [{\"object\": \"Stay\", \"actions\": [], \"hidden\":"
                        + " [\"number\"]}]}|is the key",
                "{\"objects\": [{\"object\": \"*\", \"actions\": [], \"where\": \"a = 1\"}]}|every"
                        + " object",
            })
    void aGrantOnWhatThereIsNotIsRefused(String role, String said) {
        var answer = Marina.call(CONSULTANT, "PUT", "/manage/v1/roles/slip", role);

        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.whole().body().replace("\\\"", "\"")).contains(said);
    }

    @Test
    void aNameIsLockedAfterWrongPasswords() {
        var name = user("\"clerk\"");
        for (int i = 0; i < 5; i++) {
            assertThat(Marina.get(name + ":wrong-password", "/manage/v1/status").status())
                    .isEqualTo(401);
        }
        var locked = Marina.get(name + ":a-long-password", "/manage/v1/status");

        assertThat(locked.status()).isEqualTo(429);
        assertThat(locked.json().path("detail").asString()).contains("Try again in");
    }

    @Test
    void oneChangesOnesOwnPassword() {
        var name = user("\"clerk\"");
        var path = "/manage/v1/users/me/password";
        var wrong =
                Marina.call(
                        name + ":a-long-password",
                        "POST",
                        path,
                        "{\"current\": \"not-it-at-all\", \"next\": \"another-password\"}");
        assertThat(wrong.status()).isEqualTo(422);
        var right =
                Marina.call(
                        name + ":a-long-password",
                        "POST",
                        path,
                        "{\"current\": \"a-long-password\", \"next\": \"another-password\"}");
        assertThat(right.status()).isEqualTo(204);
        assertThat(Marina.get(name + ":a-long-password", "/manage/v1/status").status())
                .isEqualTo(401);
        assertThat(Marina.get(name + ":another-password", "/manage/v1/status").status())
                .isEqualTo(200);
    }

    @Test
    void aDisabledUserIsOutAtOnceAndTheLogSaysWho() {
        var name = user("\"clerk\"");
        var who = name + ":a-long-password";
        assertThat(Marina.get(who, "/manage/v1/status").status()).isEqualTo(200);
        Marina.call(CONSULTANT, "PATCH", "/manage/v1/users/" + name, "{\"disabled\": true}");

        assertThat(Marina.get(who, "/manage/v1/status").status()).isEqualTo(401);
        assertThat(Marina.get(AUDITOR, "/manage/v1/access-log").whole().body())
                .contains("\"subject\":\"%s\",\"detail\":\"disabled\"".formatted(name))
                .doesNotContain("a-long-password");
        var self =
                Marina.call(
                        CONSULTANT, "PATCH", "/manage/v1/users/consultant", "{\"disabled\": true}");
        assertThat(self.status()).isEqualTo(409);
    }
}
