package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.e2e.Marina.CONSULTANT;
import static sandpiper.e2e.Marina.call;
import static sandpiper.e2e.Marina.get;

import java.util.LinkedHashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What the marina asked for, proved by examples that the service plays on a store of their own. */
@ExtendWith(Marina.class)
class RequirementsTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final String REQUIREMENTS = "/manage/v1/requirements";
    private static final String STAY = "gullhaven/objects/stay.yaml";

    private static Map<String, String> files() {
        var files = new LinkedHashMap<String, String>();
        for (var file : get(CONSULTANT, "/manage/v1/draft").json().path("files")) {
            files.put(file.path("path").asString(), file.path("text").asString());
        }
        return files;
    }

    private static JsonNode played(Map<String, String> files) {
        var answer =
                call(
                        CONSULTANT,
                        "POST",
                        REQUIREMENTS,
                        JSON.writeValueAsString(Map.of("files", files)));
        assertThat(answer.status()).as(answer.whole().body()).isEqualTo(200);
        return answer.json();
    }

    @Test
    void everyRequirementOfTheMarinaIsProved() {
        var answer = get(CONSULTANT, REQUIREMENTS).json();

        for (var requirement : answer.path("requirements")) {
            for (var example : requirement.path("examples")) {
                assertThat(example.path("problems"))
                        .as(requirement.path("id") + " " + example.path("name"))
                        .isEmpty();
            }
        }
        assertThat(answer.path("proved").asInt()).isEqualTo(14);
        assertThat(answer.path("failing").asInt()).isZero();
    }

    @Test
    void aRuleThatIsLostMakesItsExampleFailAndNothingIsKept() {
        var files = files();
        files.computeIfPresent(
                STAY,
                (path, text) ->
                        text.replace(
                                "that: departure > arrival",
                                "that: departure > date(\"2000-01-01\")"));
        var stays = get(CONSULTANT, "/manage/v1/records/Stay?limit=1&count=true").json();

        var answer = played(files);

        assertThat(answer.path("failing").asInt()).isEqualTo(1);
        var first = answer.path("requirements").path(0);
        assertThat(first.path("id").asString()).isEqualTo("R-01");
        assertThat(first.path("proof").asString()).isEqualTo("FAILING");
        assertThat(first.path("examples").path(0).path("problems").path(0).asString())
                .isEqualTo(
                        "It is done, but should be refused with \"Departure must be after"
                                + " arrival\".");
        assertThat(get(CONSULTANT, "/manage/v1/records/Stay?limit=1&count=true").json())
                .isEqualTo(stays);
        assertThat(get(CONSULTANT, REQUIREMENTS).json().path("failing").asInt()).isZero();
    }

    @Test
    void aRequirementWithoutAnExampleIsOpen() {
        var files = files();
        files.put(
                "gullhaven/requirements/later.yaml",
                "requirements: { R-90: { text: The office sees who is late. } }\n");

        var answer = played(files);

        assertThat(answer.path("open").asInt()).isEqualTo(1);
        assertThat(answer.path("proved").asInt()).isEqualTo(14);
    }

    @Test
    void anExampleThatNamesWhatIsNotThereIsAnErrorOfTheDefinitions() {
        var answer =
                call(
                        CONSULTANT,
                        "POST",
                        "/manage/v1/draft/check",
                        JSON.writeValueAsString(
                                Map.of(
                                        "path",
                                        "gullhaven/requirements/later.yaml",
                                        "text",
                                        """
                                        requirements:
                                          R-91:
                                            text: A quote is quick.
                                            examples:
                                              quick:
                                                when: { call: Stay.quot }
                                                then: { result: 1 }
                                        """)));

        var wrong = answer.json().path("diagnostics").path(0);
        assertThat(wrong.path("message").asString()).isEqualTo("Stay has no function \"quot\".");
        assertThat(wrong.path("line").asInt()).isEqualTo(6);
        assertThat(wrong.path("suggestion").asString()).isEqualTo("quote");
    }

    @Test
    void aReleaseIsRefusedWhileAnExampleFailsUnlessThatIsAccepted() {
        var path = "gullhaven/requirements/later.yaml";
        var text =
                """
                requirements:
                  R-92:
                    text: An owner is called by a name.
                    examples:
                      unnamed:
                        when: { create: Owner, values: { code: OW-9002, name: Ebb, kind: person } }
                        then: { refused: Ebb is no name }
                """;
        call(
                CONSULTANT,
                "PUT",
                "/manage/v1/draft/file",
                JSON.writeValueAsString(Map.of("path", path, "text", text)));

        var refused = call(CONSULTANT, "POST", "/manage/v1/releases", "{\"note\": \"No\"}");
        var removed = call(CONSULTANT, "DELETE", "/manage/v1/draft/file?path=" + path, "");

        assertThat(refused.status()).as(refused.whole().body()).isEqualTo(409);
        assertThat(refused.json().path("errors").path(0).path("code").asString())
                .isEqualTo("SP5004");
        assertThat(refused.json().path("errors").path(0).path("message").asString())
                .contains("R-92");
        assertThat(removed.status()).isEqualTo(200);
    }
}
