package sandpiper.model.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import sandpiper.model.Diagnostic;

/** Functions, handlers, schedules, events and requirements: what is wrong is told, all of it. */
class ReactionDefinitionsTest {
    private static final String BELL =
            """
            object: Bell
            key: [code]
            fields:
              code:    { type: text, length: 10 }
              strokes: { type: integer }
              checked: { type: date }
            lifecycle:
              initial: Hung
              states: [Hung, Down]
              transitions: { takeDown: { from: Hung, to: Down } }
            """;
    private static final String RANG =
            "event: BellRang\nabout: Bell\nfields: { stroke: { type: integer, required: true } }\n";

    private static Map<String, String> files(String more) {
        var files = new HashMap<String, String>();
        files.put("marina/package.yaml", "package: marina\nversion: 1.0\nzone: Europe/Berlin\n");
        files.put("marina/objects/bell.yaml", BELL + more);
        files.put("marina/events/rang.yaml", RANG);
        return files;
    }

    private static List<String> messages(Map<String, String> files) {
        return Definitions.check(files).diagnostics().stream().map(Diagnostic::message).toList();
    }

    private static List<String> ofBody(String parameters, String returns, String body) {
        return messages(
                files(
                        "functions:\n  ring:\n    parameters: { %s }\n%s    body: |\n%s"
                                .formatted(
                                        parameters,
                                        returns.isEmpty() ? "" : "    returns: " + returns + "\n",
                                        body.indent(6))));
    }

    @Test
    void aFunctionThatUsesAllItHasIsFine() {
        assertThat(
                        ofBody(
                                "times: { type: integer, required: true }",
                                "integer",
                                """
                                set strokes = times
                                emit BellRang { stroke: times }
                                return strokes\
                                """))
                .isEmpty();
    }

    static List<Arguments> mistakes() {
        return List.of(
                Arguments.of("return 1", "The parameter times of ring is never used."),
                Arguments.of(
                        "if times > 1 then\n  return 1\nend",
                        "not on every way through it; end each with return"),
                Arguments.of("return 1\nset strokes = times", "This is never reached"),
                Arguments.of("return \"x\" + string(times)", "must be a number, but is text"),
                Arguments.of("call rung(times)\nreturn 1", "rung"),
                Arguments.of("call ring(tims: times)\nreturn 1", "tims"),
                Arguments.of("call ring()\nreturn times", "times"),
                Arguments.of("emit BellRung { stroke: times }\nreturn 1", "BellRung"),
                Arguments.of("emit BellRang { }\nreturn times", "stroke"),
                Arguments.of(
                        "emit BellRang { stroke: \"x\" }\nreturn times",
                        "must be a number, but is text"),
                Arguments.of("let n = tims\nreturn times", "tims"));
    }

    @ParameterizedTest
    @MethodSource("mistakes")
    void aMistakeInABodyIsTold(String body, String told) {
        assertThat(ofBody("times: { type: integer, required: true }", "integer", body))
                .anyMatch(one -> one.contains(told));
    }

    @Test
    void onlyAFunctionReturnsSomething() {
        assertThat(messages(files("rules: { odd: { on: change, then: return strokes } }\n")))
                .contains("Only a function returns something.");
    }

    @Test
    void whatAHandlerHearsAndKnowsIsChecked() {
        var found =
                messages(
                        files(
                                """
                                handlers:
                                  deaf:  { on: BellRung, then: note "x" }
                                  blind: { on: BellRang, when: event.strokes > 1, then: note "x" }
                                  early: { on: Bell.created, run: with, then: note "x" }
                                  fine:  { on: [BellRang, Bell.takeDown], then: set strokes = 0 }
                                  many:
                                    on: BellRang
                                    batch: true
                                    then: note "{count(events)} strokes."
                                """));

        assertThat(found)
                .hasSize(3)
                .anyMatch(
                        one -> one.contains("deaf hears \"BellRung\", but there is no such event"))
                .anyMatch(one -> one.contains("strokes"))
                .anyMatch(one ->
                        one.contains(
                                "what is part of the same change as Bell.created is said with"
                                        + " a rule"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "every: '0 25 * * *' | is not a time as cron has it",
                "on: soon | is not a day",
                "on: 3 days before code | code is not a date",
                "on: 3 days before chcked | There is no field \"chcked\"",
                "describe: never | A schedule has either \"every\""
            })
    void aTimeThatIsNoneIsTold(String when, String told) {
        assertThat(
                        messages(
                                files(
                                        "schedules:\n  look:\n    %s\n    then: note \"x\"\n"
                                                .formatted(when.replace('\'', '"')))))
                .anyMatch(one -> one.contains(told));
    }

    @Test
    void aScheduleMayHaveATimeOrADay() {
        assertThat(
                        messages(
                                files(
                                        """
                                        schedules:
                                          weekly: { every: "0 6 * * 1", where: strokes > 3, then: set strokes = 0 }
                                          due: { on: 7 days before checked, at: "06:00", missed: skip, then: note "x" }
                                        """)))
                .isEmpty();
    }

    @Test
    void aServiceOffersWhatIsThereAndExternal() {
        var files =
                files(
                        """
                        functions:
                          ring: { external: true, body: note "x" }
                          hum:  { body: note "x" }
                          all:  { on: object, external: true, returns: integer, body: return 1 }
                        """);
        files.put(
                "marina/services/bells.yaml",
                """
                service: bells
                version: 1
                functions: [Bell.all, Bell.ring, Bell.none]
                events: [BellRang, BellRung]
                resources:
                  bells:
                    object: Bell
                    read: { fields: all }
                    calls: [ring, takeDown, hum, all]
                """);

        assertThat(messages(files))
                .hasSize(5)
                .anyMatch(one -> one.contains("it belongs into calls of a resource"))
                .anyMatch(one -> one.contains("There is no function \"Bell.none\""))
                .anyMatch(one -> one.contains("There is no event \"BellRung\""))
                .anyMatch(one -> one.contains("hum is internal"))
                .anyMatch(one -> one.contains("it belongs into functions of the"));
    }

    @Test
    void whatAnExampleNamesMustBeThereAndWhatExamplesShareIsWrongOnce() {
        var files = files("");
        files.put(
                "marina/requirements/bells.yaml",
                """
                given:
                  - { create: Bel, values: { code: A } }
                requirements:
                  R-1:
                    text: Bells ring.
                    examples:
                      one:
                        when: { create: Bell, values: { cod: A } }
                        then: { values: { stroks: 1 }, events: [BellRung] }
                      two:
                        when: { transition: takeUp, of: Bell/A }
                        then: { refused: x }
                """);

        assertThat(Definitions.check(files).diagnostics())
                .extracting(Diagnostic::message)
                .containsExactlyInAnyOrder(
                        "There is no object \"Bel\".",
                        "Bell has no field \"cod\".",
                        "Bell has no field \"stroks\".",
                        "There is no event \"BellRung\".",
                        "Bell has no transition \"takeUp\".");
    }
}
