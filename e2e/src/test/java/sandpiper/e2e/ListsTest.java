package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.client.ManageClient;
import tools.jackson.databind.JsonNode;

/** Figures, named views, conditions taken apart, and services tried as a client. */
@ExtendWith(Marina.class)
class ListsTest {
    private static final String ADMIN = "admin:gullhaven";
    private static final String AUDITOR = "auditor:gullhaven";
    private static final String CLERK = "clerk:gullhaven";
    private static final String FIGURES = "/manage/v1/figures/";
    private static final String VIEWS = "/manage/v1/views/Stay";

    @Test
    void figuresCountWhatTheListCountsAndAddItUp() {
        var filter = "filter=" + ManageClient.escape("state = \"Departed\" and berth.pier = \"N\"");
        var list = Marina.get(CLERK, "/manage/v1/records/Stay?limit=500&count=true&" + filter);
        var figures = Marina.get(CLERK, FIGURES + "Stay?of=nights&by=vessel&" + filter).json();
        long nights = 0;
        for (var record : list.json().path("records")) {
            nights += record.path("values").path("nights").asLong();
        }
        assertThat(figures.path("count").asLong()).isEqualTo(list.json().path("total").asLong());
        assertThat(figures.path("sums").path("nights").asLong()).isEqualTo(nights).isPositive();
        long counted = 0;
        for (var group : figures.path("groups")) {
            counted += group.path("count").asLong();
            assertThat(group.path("title").asString()).isNotEmpty();
        }
        assertThat(counted).isEqualTo(figures.path("count").asLong());
    }

    @Test
    void figuresAreOfWhatIsSeen() {
        var mine = Marina.get(AUDITOR, FIGURES + "Stay?by=state").json();
        assertThat(mine.path("groups")).hasSize(1);
        assertThat(mine.path("groups").get(0).path("value").asString()).isEqualTo("Departed");
        assertThat(Marina.get(AUDITOR, FIGURES + "Owner?by=email").whole().body())
                .contains("which Owner has not");
        assertThat(Marina.get(AUDITOR, FIGURES + "WorkRequest").status()).isEqualTo(403);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Stay?of=state|state is no number",
                "Tariff?of=vat|vat is no number that can be added up",
                "Stay?by=stat|Did you mean state?",
                "Stay?by=arrival&step=hour|step must be one of day, week, month, quarter, year",
                "Stay?by=state&step=day|state is none",
                "Pier?by=name|Records cannot be counted by name",
                "Stay?group=state|There is no parameter",
                "Stya|Did you mean Stay?"
            })
    void whatCannotBeCountedIsTold(String query, String said) {
        assertThat(Marina.get(CLERK, FIGURES + query).whole().body()).contains(said);
    }

    @Test
    void viewsOfAPackageAreThereForAllAndChangedThere() {
        var shown =
                Marina.get(CLERK, VIEWS)
                        .json()
                        .valueStream()
                        .filter(one -> one.path("name").asString().equals("Arrivals to come"))
                        .findFirst()
                        .orElseThrow();
        assertThat(shown.path("from").asString()).isEqualTo("gullhaven");
        assertThat(shown.path("shared").asBoolean()).isTrue();
        assertThat(shown.path("chart").path("step").asString()).isEqualTo("WEEK");
        var refused =
                Marina.call(ADMIN, "PUT", VIEWS, "{\"name\":\"Arrivals to come\",\"shared\":true}");
        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.whole().body()).contains("comes with the package gullhaven");
        var one = VIEWS + "?name=Arrivals%20to%20come&shared=true";
        assertThat(Marina.call(ADMIN, "DELETE", one, "").status()).isEqualTo(409);
    }

    private static List<JsonNode> kept(String who) {
        return Marina.get(who, VIEWS)
                .json()
                .valueStream()
                .filter(one -> !one.hasNonNull("from"))
                .toList();
    }

    @Test
    void viewsAreOnesOwnOrShared() {
        var own =
                "{\"name\":\"Mine\",\"shared\":false,\"filter\":\"nights >"
                        + " 3\",\"columns\":[\"number\"],"
                        + "\"chart\":{\"kind\":\"LINE\",\"by\":\"arrival\",\"step\":\"WEEK\"}}";
        assertThat(Marina.call(CLERK, "PUT", VIEWS, own).status()).isEqualTo(200);
        assertThat(Marina.call(CLERK, "PUT", VIEWS, own.replace("false", "true")).status())
                .isEqualTo(403);
        var shared = "{\"name\":\"Mine\",\"shared\":true,\"sort\":\"-arrival\"}";
        assertThat(Marina.call(ADMIN, "PUT", VIEWS, shared).status()).isEqualTo(200);

        var seen = kept(CLERK);
        assertThat(seen).hasSize(2);
        var mine = seen.get(0).path("shared").asBoolean() ? seen.get(1) : seen.get(0);
        assertThat(mine.path("chart").path("step").asString()).isEqualTo("WEEK");
        assertThat(mine.path("columns").get(0).asString()).isEqualTo("number");
        assertThat(kept(ADMIN)).hasSize(1);

        assertThat(Marina.call(CLERK, "DELETE", VIEWS + "?name=Mine", "").status()).isEqualTo(204);
        assertThat(Marina.call(CLERK, "DELETE", VIEWS + "?name=Mine", "").status()).isEqualTo(404);
        assertThat(Marina.call(ADMIN, "DELETE", VIEWS + "?name=Mine&shared=true", "").status())
                .isEqualTo(204);
    }

    @Test
    void aConditionComesBackAsItWas() {
        var text = "nights > 3 and (state in (\"Open\") or every c in charges satisfies c.net > 0)";
        var parts =
                Marina.call(
                        CLERK,
                        "POST",
                        "/manage/v1/conditions/parts",
                        "{\"text\":\"" + text.replace("\"", "\\\"") + "\"}");
        assertThat(parts.json().path("kind").asString()).isEqualTo("GROUP");
        var again = Marina.call(CLERK, "POST", "/manage/v1/conditions/text", parts.whole().body());
        assertThat(again.json().path("text").asString())
                .isEqualTo(
                        "nights > 3 and (state in (\"Open\") or (every c in charges satisfies c.net"
                                + " > 0))");
        var open =
                "{\"kind\":\"COMPARISON\",\"of\":{\"kind\":\"FIELD\",\"text\":\"nights\"},"
                        + "\"relation\":\"LESS\",\"values\":[]}";
        var refused = Marina.call(CLERK, "POST", "/manage/v1/conditions/text", open);
        assertThat(refused.status()).isEqualTo(400);
        assertThat(refused.whole().body()).contains("needs 1 values and has 0");
    }

    @Test
    void aServiceIsTriedWithWhatAClientMayDo() {
        var token =
                Marina.call(ADMIN, "POST", "/manage/v1/clients/port-authority/token", "")
                        .json()
                        .path("token")
                        .asString();
        var bearer = new String[] {"Authorization", "Bearer " + token};
        assertThat(
                        Marina.call(
                                        "",
                                        "GET",
                                        "/api/vessel-registry/v1/vessels?limit=1",
                                        "",
                                        bearer)
                                .status())
                .isEqualTo(200);
        assertThat(Marina.call("", "GET", "/api/berth-desk/v1/stays?limit=1", "", bearer).status())
                .isEqualTo(404);
        assertThat(
                        Marina.call(CLERK, "POST", "/manage/v1/clients/port-authority/token", "")
                                .status())
                .isEqualTo(403);
        assertThat(Marina.call(ADMIN, "POST", "/manage/v1/clients/nobody/token", "").status())
                .isEqualTo(404);
        assertThat(Marina.get(ADMIN, "/manage/v1/access-log").whole().body())
                .contains("client tried");
    }
}
