package sandpiper.server.replay;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class AnswerComparisonTest {
    private final AnswerComparison comparison = new AnswerComparison();

    private static ReplayedAnswer json(int status, String location, String body) {
        return new ReplayedAnswer(
                status, "application/json", location, body.getBytes(StandardCharsets.UTF_8));
    }

    private static ReplayedAnswer json(int status, String body) {
        return json(status, "", body);
    }

    private static ReplayedAnswer xml(int status, String body) {
        return new ReplayedAnswer(
                status, "text/xml; charset=utf-8", "", body.getBytes(StandardCharsets.UTF_8));
    }

    private String told(ReplayedAnswer now, ReplayedAnswer then) {
        return comparison
                .compare(now, then)
                .map(one -> one.now() + " -> " + one.then())
                .orElse("alike");
    }

    @Test
    void whatTheServiceGivesByItselfIsNoDifference() {
        var one =
                """
                {"id": "01a22f77-657c-7035-8479-90c6b39b8012", "number": "ST-7", "title": "ST-7, Heron",
                 "at": "2026-05-01T10:00:00.1Z", "here": "2026-05-01T10:00:00"}\
                """;
        var other =
                """
                {"id": "01a22f77-657d-77ee-bb3f-18139a55b578", "number": "ST-8", "title": "ST-8, Heron",
                 "at": "2026-05-01T10:00:02.7Z", "here": "2026-05-01T10:00:01"}\
                """;

        assertThat(told(json(201, "/api/a/v1/stays/ST-7", one), json(201, "/x/stays/ST-8", other)))
                .isEqualTo("alike");
        // Later answers name them as well, in OData too.
        assertThat(told(json(200, "{\"key\": \"ST-7\"}"), json(200, "{\"key\": \"ST-8\"}")))
                .isEqualTo("alike");
        assertThat(
                        told(
                                json(201, "http://x/odata/a/v1/stays('ST-9')", "{\"n\": \"ST-9\"}"),
                                json(
                                        201,
                                        "http://x/odata/a/v1/stays('ST-10')",
                                        "{\"n\": \"ST-10\"}")))
                .isEqualTo("alike");
        assertThat(told(json(200, "{\"key\": \"ST-1\"}"), json(200, "{\"key\": \"ST-2\"}")))
                .contains("another key");
    }

    @Test
    void valuesAndNamesAreToldByTheirPlaces() {
        assertThat(told(json(200, "{\"fee\": 2.00}"), json(200, "{\"fee\": 2.50}")))
                .isEqualTo("200 with fee 2.00 -> 200 with another fee: 2.50");
        assertThat(
                        told(
                                json(200, "{\"items\": [{\"a\": 1}, {\"a\": 2, \"b\": 1}]}"),
                                json(200, "{\"items\": [{\"a\": 1, \"c\": 1}, {\"a\": 3}]}")))
                .isEqualTo(
                        "200 -> 200 without items[].b, with items[].c besides, with another"
                                + " items[].a");
        assertThat(told(json(200, "{\"items\": [1, 2]}"), json(200, "{\"items\": [1]}")))
                .contains("another items[]");
        assertThat(told(json(204, ""), json(204, ""))).isEqualTo("alike");
        assertThat(told(json(200, "{\"a\": null}"), json(200, "{\"a\": null}"))).isEqualTo("alike");
    }

    @Test
    void manyPlacesAreCounted() {
        assertThat(
                        told(
                                json(200, "{}"),
                                json(
                                        200,
                                        "{\"a\":1,\"b\":1,\"c\":1,\"d\":1,\"e\":1,\"f\":1,\"g\":1}")))
                .isEqualTo("200 -> 200 with a, b, c, d, e, 2 more besides");
    }

    @Test
    void whatIsRefusedIsToldInItsNewWords() {
        var taken = "{\"code\": \"SP4102\", \"message\": \"There is a B1 already.\"}";
        var checked = "{\"code\": \"SP4119\", \"message\": \"It is too long.\"}";
        assertThat(told(json(201, "{}"), json(422, "{\"errors\": [%s]}".formatted(checked))))
                .isEqualTo("201 -> 422 It is too long.");
        assertThat(
                        told(
                                json(409, "{\"errors\": [%s]}".formatted(taken)),
                                json(422, "{\"errors\": [%s, %s]}".formatted(taken, checked))))
                .isEqualTo("409 There is a B1 already. -> 422 It is too long.");
        assertThat(
                        told(
                                json(409, "{\"errors\": [%s]}".formatted(taken)),
                                json(
                                        409,
                                        "{\"errors\": [%s]}".formatted(taken.replace("B1", "B2")))))
                .isEqualTo("alike");
    }

    @Test
    void differencesOfOneKindAreOfOneKindWhateverTheValues() {
        var kind =
                comparison
                        .compare(json(200, "{\"fee\": 1}"), json(200, "{\"fee\": 2}"))
                        .map(AnswerComparison.Difference::kind);
        assertThat(
                        comparison
                                .compare(json(200, "{\"fee\": 7}"), json(200, "{\"fee\": 9}"))
                                .map(AnswerComparison.Difference::kind))
                .isEqualTo(kind)
                .isNotEqualTo(Optional.empty());
    }

    @Test
    void xmlIsComparedByItsElementsWithoutPrefixes() {
        assertThat(
                        told(
                                xml(200, "<a:x xmlns:a='u'><a:fee>1</a:fee></a:x>"),
                                xml(200, "<b:x xmlns:b='u'><b:fee>1</b:fee></b:x>")))
                .isEqualTo("alike");
        assertThat(told(xml(200, "<x><fee>1</fee></x>"), xml(200, "<x><fee>2</fee></x>")))
                .isEqualTo("200 with x.fee 1 -> 200 with another x.fee: 2");
        assertThat(
                        told(
                                xml(200, "<x/>"),
                                xml(
                                        500,
                                        "<E><Body><Fault><faultstring>Too"
                                                + " long.</faultstring></Fault></Body></E>")))
                .isEqualTo("200 -> 500 Too long.");
        assertThat(told(xml(200, "<x"), xml(200, "<x"))).isEqualTo("alike");
    }
}
