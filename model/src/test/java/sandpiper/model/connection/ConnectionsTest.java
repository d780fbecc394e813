package sandpiper.model.connection;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.model.Diagnostic;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.check.CheckedDefinitions;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.model.type.OutsideChoiceType;

class ConnectionsTest {
    private static final String DOCUMENT =
            """
            openapi: 3.0.3
            info: { title: Signals, version: "1" }
            paths:
              /flags:
                get:
                  parameters:
                    - { name: q, in: query, schema: { type: string } }
                  responses:
                    "200": { $ref: "#/components/responses/Flags" }
              /flags/{code}:
                parameters:
                  - { name: code, in: path, required: true, schema: { type: string } }
                get:
                  responses:
                    "200":
                      description: One
                      content: { application/json: { schema: { $ref: "#/components/schemas/Flag" } } }
              /depths/{place}:
                get:
                  parameters:
                    - { name: place, in: path, required: true, schema: { type: string } }
                    - { name: on-day, in: query, required: true, schema: { type: string, format: date } }
                    - { name: Authorization, in: header, schema: { type: string } }
                  responses:
                    default: { description: Wrong }
                    "200":
                      description: How deep
                      content:
                        application/json:
                          schema:
                            type: object
                            properties:
                              depth: { type: number, nullable: true }
                              flag: { $ref: "#/components/schemas/Flag" }
                              far: { $ref: "https://elsewhere.example/schemas.json#/Far" }
                post:
                  parameters:
                    - { name: place, in: path, required: true, schema: { type: string } }
                  requestBody:
                    content:
                      application/json:
                        schema:
                          allOf:
                            - { type: object, required: [metres], properties: { metres: { type: number } } }
                            - { type: object, properties: { said: { type: string } } }
                  responses: { "204": { description: Noted } }
            components:
              responses:
                Flags:
                  description: All
                  content:
                    application/json:
                      schema:
                        type: object
                        properties:
                          rows: { type: array, items: { $ref: "#/components/schemas/Flag" } }
                          total: { type: integer }
              schemas:
                Flag:
                  type: object
                  properties:
                    code: { type: string }
                    name: { type: string }
                    parent: { $ref: "#/components/schemas/Flag" }
            """;

    private static final String FLAGS =
            "{ call: GET /flags, items: rows, key: code, label: name, search: q }";
    private static final String DEPTH =
            "{ call: \"GET /depths/{place}\", parameters: { place: text, day: { type: date, sent:"
                    + " on-day } }, returns: decimal, at: depth }";

    private static Map<String, String> files(String lookup, String call, String steps) {
        var files = new TreeMap<String, String>();
        files.put("port/package.yaml", "package: port\nversion: 1\n");
        files.put("port/connections/signals.openapi.yaml", DOCUMENT);
        files.put(
                "port/connections/signals.yaml",
                "connection: signals\ncontract: signals.openapi.yaml\nlookups:\n  flags: %s\ncalls:\n  depth: %s\n  kept: %s\n"
                        .formatted(
                                lookup,
                                call,
                                DEPTH.replace("at: depth }", "at: depth, keep: P1D }")));
        files.put(
                "port/objects/mast.yaml",
                """
                object: Mast
                key: code
                fields:
                  code: { type: text, required: true }
                  flag: { type: choice, from: signals.flags }
                  day: { type: date }
                  depth: { type: decimal }
                functions:
                  sound:
                    body: |
                      %s
                """
                        .formatted(steps.replace("\n", "\n      ")));
        return files;
    }

    private static List<String> problems(Map<String, String> files) {
        return Definitions.check(files).diagnostics().stream()
                .map(ConnectionsTest::written)
                .toList();
    }

    private static String written(Diagnostic one) {
        return "%s:%d %s%s"
                .formatted(
                        one.file().substring(one.file().lastIndexOf('/') + 1),
                        one.line(),
                        one.message(),
                        one.suggestion() == null ? "" : " (" + one.suggestion() + ")");
    }

    private static Release release(Map<String, String> files) {
        CheckedDefinitions checked = Definitions.check(files);
        assertThat(checked.diagnostics()).isEmpty();
        return checked.release().orElseThrow();
    }

    @Test
    void aReleaseKnowsWhatAConnectionGives() {
        var release =
                release(
                        files(
                                FLAGS,
                                DEPTH,
                                "let metres = call signals.depth(\"N\", day)\nset depth = metres"));

        var signals = ConnectionType.find(release, "signals").orElseThrow();
        assertThat(signals.operations()).containsExactly("GET /flags", "GET /depths/{place}");
        assertThat(signals.lookup("flags").orElseThrow().search()).isEqualTo("q");
        var depth = signals.functions().getFirst();
        assertThat(depth.parameters()).allMatch(one -> one.required());
        assertThat(depth.operation().places())
                .containsExactly(
                        new OutsideOperation.Sent("place", OutsideOperation.Where.PATH),
                        new OutsideOperation.Sent("on-day", OutsideOperation.Where.QUERY));
        assertThat(release.object("Mast").fields().get("flag").type())
                .isEqualTo(new OutsideChoiceType("signals.flags"));
    }

    @Test
    void ofAMissingOperationOnlyThatIsSaid() {
        assertThat(problems(files("{ items: rows, key: code }", DEPTH, "note \"x\"")))
                .singleElement()
                .asString()
                .contains("\"call\" is missing");
        assertThat(problems(files(FLAGS, "{ parameters: { place: text } }", "note \"x\"")))
                .singleElement()
                .asString()
                .contains("\"call\" is missing");
    }

    @Test
    void aReleaseTellsWhichConnectionsComeAndGo() {
        var with = release(files(FLAGS, DEPTH, "note \"x\""));

        assertThat(ReleaseChange.between(Release.EMPTY, with).sentences())
                .contains(
                        "Connection signals is added; the instance gives its address under"
                                + " signals.");
        assertThat(ReleaseChange.between(with, Release.EMPTY).sentences())
                .contains("Connection signals is removed.");
        assertThat(ReleaseChange.between(with, with).sentences()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    { call: GET /flag, key: code } | The contract has no operation "GET /flag". (GET /flags)
                    { call: GET /flags, items: row, key: code } | The answer of GET /flags has no "row"; there it has rows, total. (rows)
                    { call: GET /flags, items: total, key: code } | total is integer in the contract, not a list.
                    { call: GET /flags, items: rows, key: cod } | The answer of GET /flags has no "cod"; there it has code, name, parent. (code)
                    { call: GET /flags, items: rows, key: parent } | parent is object in the contract, not a text.
                    { call: GET /flags, items: rows, key: code, search: name } | GET /flags takes no "name"; it takes q.
                    { call: 'GET /flags/{code}', key: code } | GET /flags/{code} needs code, which is not given.
                    { call: 'POST /depths/{place}', key: code } | A lookup only reads: its operations are those of GET.
                    { call: GET /flags, items: rows, key: code, one: GET /flags } | GET /flags must have one parameter in its path, which takes the code.
                    { call: GET /flags, items: rows, key: code, keep: PT0S } | Answers are kept for a second to ten years.
                    """)
    void lookupsAreCheckedAgainstTheContract(String lookup, String message) {
        assertThat(problems(files(lookup, DEPTH, "note \"x\"")))
                .anyMatch(one -> one.equals("signals.yaml:4 " + message));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    { call: 'GET /depths/{place}', parameters: { place: text } } | GET /depths/{place} needs on-day, which is not given.
                    { call: 'GET /depths/{place}', parameters: { place: integer, d: { type: date, sent: on-day } } } | place is string in the contract, which does not go with integer.
                    { call: 'GET /depths/{place}', parameters: { plaice: text, d: { type: date, sent: on-day } } } | GET /depths/{place} takes no "plaice"; it takes place, on-day, Authorization. (place)
                    { call: 'GET /depths/{place}', parameters: { place: text, d: { type: date, sent: on-day }, a: { type: text, sent: Authorization } } } | The header Authorization is sent by the service itself; credentials are given by the instance.
                    { call: 'GET /depths/{place}', parameters: { place: text, d: { type: date, sent: on-day } }, returns: date, at: depth } | The answer is number in the contract, which does not go with date.
                    { call: 'GET /depths/{place}', parameters: { place: text, d: { type: date, sent: on-day } }, returns: decimal, at: deep } | The answer of GET /depths/{place} has no "deep"; there it has depth, flag, far.
                    { call: 'GET /depths/{place}', parameters: { place: text, d: { type: date, sent: on-day } }, returns: text, at: far.name } | The contract says in another document, which is not fetched, what GET /depths/{place} answers; it cannot be checked.
                    { call: 'POST /depths/{place}', parameters: { place: text } } | POST /depths/{place} needs metres, which is not given.
                    { call: 'POST /depths/{place}', parameters: { place: text, metres: decimal }, keep: PT1H } | Only what GET answers is kept; another call changes something outside.
                    """)
    void callsAreCheckedAgainstTheContract(String call, String message) {
        assertThat(problems(files(FLAGS, call, "note \"x\"")))
                .anyMatch(one -> one.equals("signals.yaml:6 " + message));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    call signal-s.depth("N", day) | There is no connection "signal-s"; there is signals. (signals)
                    call signals.dept("N", day) | signals has no call "dept"; it has depth, kept. (depth)
                    call signals.depth("N") | depth needs day.
                    call signals.depth(day, "N") | This must be text, but is a date.
                    let x = call signals.depth("N", tday) | Mast has no field "tday". (day)
                    """)
    void stepsAreToldWhatIsWrongWithACall(String step, String message) {
        assertThat(problems(files(FLAGS, DEPTH, step))).anyMatch(one -> one.contains(message));
    }

    @Test
    void aChangeWaitsForNobody() {
        var files = files(FLAGS, DEPTH, "call signals.depth(\"N\", day)");
        files.put(
                "port/objects/mast.yaml",
                files.get("port/objects/mast.yaml")
                        + """
                          within:
                            body: |
                              call sound()
                        rules:
                          directly: { on: change, then: 'let x = call signals.depth("N", day)' }
                          byAnother: { on: change, then: call within() }
                          kept: { on: change, then: 'call signals.kept("N", day) as x' }
                        """);

        assertThat(problems(files))
                .filteredOn(one -> one.contains("waits for an outside service at every call"))
                .hasSize(2)
                .anyMatch(one -> one.contains("signals.depth waits"))
                .anyMatch(one -> one.contains("within waits"));
    }

    @Test
    void aFieldNamesALookupThatIsThere() {
        var files = files(FLAGS, DEPTH, "note \"x\"");
        files.put(
                "port/objects/other.yaml",
                """
                object: Other
                key: code
                fields:
                  code: { type: choice, from: signals.flags, required: true }
                  a: { type: choice, from: signal.flags }
                  b: { type: choice, from: signals.flag }
                  c: { type: choice, from: signals.flags, choices: [x] }
                  d: { type: text, from: signals.flags }
                  e: { type: choice }
                """);

        assertThat(problems(files))
                .containsExactlyInAnyOrder(
                        "other.yaml:4 A key does not come from an outside service; keep its code in"
                                + " a field of type text.",
                        "other.yaml:5 There is no connection \"signal\". (signals)",
                        "other.yaml:6 signals has no lookup \"flag\"; it has flags."
                                + " (signals.flags)",
                        "other.yaml:7 A choice whose codes come from outside has no \"choices\";"
                                + " leave out one of the two.",
                        "other.yaml:8 \"from\" is not for a field of type text.",
                        "other.yaml:9 A choice needs \"choices\", the name of a choice list or its"
                                + " codes, or \"from\", a lookup of a connection.");
    }

    @Test
    void aContractThatCannotBeReadIsToldWhereItIs() {
        var files = files(FLAGS, DEPTH, "note \"x\"");
        files.put("port/connections/signals.openapi.yaml", "swagger: \"2.0\"\n");
        files.put("port/connections/left.openapi.json", "{}");

        assertThat(problems(files))
                .containsExactlyInAnyOrder(
                        "signals.openapi.yaml:1 This is a document of Swagger 2.0; bring in one of"
                                + " OpenAPI 3.0 or 3.1.",
                        "left.openapi.json:1 No connection names this document as its contract.");

        files.remove("port/connections/signals.openapi.yaml");
        assertThat(problems(files))
                .anyMatch(one ->
                        one.startsWith(
                                "signals.yaml:2 There is no file"
                                        + " port/connections/signals.openapi.yaml."));
    }

    @Test
    void whatOnePackageNeedsOfAnotherItMustDependOn() {
        var files = files(FLAGS, DEPTH, "note \"x\"");
        files.put("yard/package.yaml", "package: yard\nversion: 1\nrates: signals.kept\n");
        files.put(
                "yard/objects/boat.yaml",
                "object: Boat\nfields:\n  flag: { type: choice, from: signals.flags }\n");

        assertThat(problems(files))
                .filteredOn(one ->
                        one.contains("is in the package port, which yard does not depend on"))
                .hasSize(2);
    }

    @Test
    void ratesComeFromACallThatCanGiveThem() {
        var files = files(FLAGS, DEPTH, "let x = convert(12, \"USD\", day, \"EUR\")\nnote x");
        assertThat(problems(files))
                .anyMatch(one -> one.contains("No package says from where exchange rates come"));

        files.put("port/package.yaml", "package: port\nversion: 1\nrates: signals.depth\n");
        assertThat(problems(files))
                .anyMatch(
                        one -> one.startsWith("package.yaml:3 signals.depth cannot give exchange"));

        files.put("port/package.yaml", "package: port\nversion: 1\nrates: signals.kept\n");
        assertThat(problems(files)).isEmpty();

        files.put(
                "port/objects/bill.yaml",
                """
                object: Bill
                fields:
                  total: { type: amount, currency: USD }
                  dollars: { type: amount, currency: record, formula: 'convert(total, "USD", date("2026-05-01"))' }
                """);
        assertThat(problems(files)).anyMatch(one -> one.contains("it stands in steps alone"));
    }
}
