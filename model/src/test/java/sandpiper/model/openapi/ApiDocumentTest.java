package sandpiper.model.openapi;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ApiDocumentTest {
    private static String document(String paths, String schemas) {
        return """
        {
        \t"openapi": "3.1.0", "info": { "title": "Signals \\ud83d\\udea9", "version": "2" },
        \t"servers": [{ "url": "https://signals.example/v2" }],
        \t"paths": { %s },
        \t"components": { "schemas": { %s } }
        }
        """
                .formatted(paths, schemas);
    }

    private static String operation(String path, String schema) {
        return """
        "%s": { "get": { "summary": "Reads", "responses": { "200": { "description": "Good",
            "content": { "application/vnd.x+json": { "schema": %s } } } } } }
        """
                .formatted(path, schema);
    }

    @Test
    void isReadWithItsSignsAndTabs() {
        var read = ApiDocument.read(document(operation("/a", "{ \"type\": \"string\" }"), ""));

        assertThat(read.title()).isEqualTo("Signals 🚩");
        assertThat(read.address()).isEqualTo("https://signals.example/v2");
        assertThat(read.operations()).extracting(ApiOperation::written).containsExactly("GET /a");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    '' | This is not a document of OpenAPI: it has no entries.
                    '[1]' | This is not a document of OpenAPI: it has no entries.
                    '{"openapi": "3.1.0", "openapi": "3.1.0"}' | This is not JSON, at line 1: Duplicate Object property "openapi".
                    '{"openapi": ' | This is not JSON, at line 1:
                    'a: [1' | This is neither JSON nor YAML:
                    '{"openapi": "2.0"}' | This is not a document of OpenAPI 3.0 or 3.1
                    'openapi: 3.1.0' | -
                    """)
    void whatIsNoneIsTold(String text, String message) {
        if (message.equals("-")) {
            assertThat(ApiDocument.read(text).operations()).isEmpty();
        } else {
            assertThatThrownBy(() -> ApiDocument.read(text))
                    .isInstanceOf(ApiDocumentException.class)
                    .hasMessageStartingWith(message);
        }
    }

    @Test
    void referencesInACircleEnd() {
        var read =
                ApiDocument.read(
                        document(
                                operation("/a", "{ \"$ref\": \"#/components/schemas/A\" }")
                                        + ","
                                        + operation(
                                                "/b", "{ \"$ref\": \"#/components/schemas/B\" }"),
                                """
                                "A": { "$ref": "#/components/schemas/A" },
                                "B": { "allOf": [{ "$ref": "#/components/schemas/B" }],
                                       "properties": { "next": { "$ref": "#/components/schemas/B" } } }
                                """));

        assertThat(read.operations().get(0).answer().types()).isEmpty();
        assertThat(read.operations().get(1).answer().at(List.of("next", "next", "next")))
                .isPresent();
        assertThat(ApiDifferences.of(read, read, List.of("GET /a", "GET /b"))).isEmpty();
    }

    @Test
    void aYamlBombIsRefused() {
        var bomb =
                "openapi: 3.1.0\na: &a [x, x]\n"
                        + IntStream.range(0, 25)
                                .mapToObj(i ->
                                        "%c: &%c [%s]"
                                                .formatted(
                                                        'b' + i,
                                                        'b' + i,
                                                        "*%c, *%c, *%c"
                                                                .formatted(
                                                                        'a' + i, 'a' + i, 'a' + i)))
                                .collect(Collectors.joining("\n"));

        assertThatThrownBy(() -> ApiDocument.read(bomb)).isInstanceOf(ApiDocumentException.class);
    }

    @Test
    void twentyMegabytesAreReadAndCutDownToWhatIsUsed() {
        var many =
                IntStream.range(0, 20_000)
                        .mapToObj(i ->
                                operation(
                                        "/things" + i,
                                        "{ \"$ref\": \"#/components/schemas/Thing\", \"description\": \"%s\" }"
                                                .formatted("x".repeat(850))))
                        .collect(Collectors.joining(","));
        var text =
                document(
                        many,
                        "\"Thing\": { \"type\": \"object\", \"properties\": { \"of\": { \"$ref\":"
                                + " \"#/components/schemas/Other\" } } }, \"Other\": { \"type\":"
                                + " \"string\" }, \"Unused\": {}");
        assertThat(text.length()).isGreaterThan(20_000_000);

        var excerpt = ApiExcerpt.of(ApiDocument.read(text), List.of("GET /things7"));

        assertThat(excerpt.length()).isLessThan(3_000);
        var read = ApiDocument.read(excerpt);
        assertThat(read.operations())
                .extracting(ApiOperation::written)
                .containsExactly("GET /things7");
        assertThat(read.operations().getFirst().answer().at(List.of("of")).orElseThrow().types())
                .containsExactly("string");
        assertThat(excerpt).doesNotContain("Unused");
    }

    @Test
    void whatDiffersIsSaidPlaceByPlace() {
        var before =
                ApiDocument.read(
                        document(
                                """
                                "/a": { "get": {
                                  "parameters": [{ "name": "q", "in": "query", "schema": { "type": "string" } }],
                                  "responses": { "200": { "description": "", "content": { "application/json": { "schema": {
                                    "type": "array", "items": { "type": "object", "properties": { "code": { "type": "string" }, "name": { "type": "string" } } } } } } } } } },
                                "/b": { "get": { "responses": {} } }
                                """,
                                ""));
        var after =
                ApiDocument.read(
                        document(
                                """
                                "/a": { "get": {
                                  "parameters": [{ "name": "q", "in": "query", "required": true, "schema": { "type": "string" } }],
                                  "responses": { "200": { "description": "", "content": { "application/json": { "schema": {
                                    "type": "array", "items": { "type": "object", "properties": { "code": { "type": "integer" }, "more": {} } } } } } } } } }
                                """,
                                ""));

        assertThat(ApiDifferences.of(before, after, List.of("GET /a", "GET /b", "GET /c")))
                .containsExactly(
                        "GET /a: the parameter q was string in the query and is string in the"
                                + " query, required.",
                        "GET /a: [].code of the answer was string and is integer.",
                        "GET /a: [].name of the answer is gone.",
                        "GET /a: [].more of the answer is new, anything.",
                        "GET /b is gone.");
    }
}
