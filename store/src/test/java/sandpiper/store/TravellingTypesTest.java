package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import sandpiper.engine.command.Outcome;

/** Values of every type travel as they are, to what comes and to what is there. */
class TravellingTypesTest {
    @TempDir Path folder;

    /** Types with a value of each; whether such a field can follow. */
    static Stream<Arguments> types() {
        return Stream.of(
                Arguments.of("type: text, length: 9", "Grüße", true),
                Arguments.of("type: text, multiline: true", "two\nlines", true),
                Arguments.of("type: text, localised: true", both("Hello", "Moin"), false),
                Arguments.of("type: email", "a@example.org", true),
                Arguments.of("type: phone", "+49 4321 1", true),
                Arguments.of("type: web-address", "https://example.org/a", true),
                Arguments.of("type: integer", 9_007_199_254_740_991L, true),
                Arguments.of("type: decimal, scale: 3", new BigDecimal("-1.005"), true),
                Arguments.of("type: amount, currency: JPY", new BigDecimal("12"), true),
                Arguments.of("type: amount, currency: record", money("7.50", "USD"), false),
                Arguments.of("type: percent", new BigDecimal("19.00"), true),
                Arguments.of("type: boolean", false, true),
                Arguments.of("type: date", "2026-02-28", true),
                Arguments.of("type: time", "23:59:59", true),
                Arguments.of("type: date-time", "2026-05-01T14:30:00Z", true),
                Arguments.of("type: duration", "P1DT6H", true),
                Arguments.of("type: choice, choices: [low, high]", "high", true),
                Arguments.of("type: choice, choices: Level", "one", true),
                Arguments.of("type: reference, to: Payer, inverse: others", "P0", false),
                Arguments.of("type: file, accepts: [text/plain]", note(), false),
                Arguments.of("type: uuid", "0199c1a0-0000-7000-8000-000000000001", true));
    }

    private static Map<String, Object> both(String english, String german) {
        var texts = new LinkedHashMap<String, Object>();
        texts.put("en", english);
        texts.put("de", german);
        return texts;
    }

    private static Map<String, Object> note() {
        var note = new LinkedHashMap<String, Object>();
        note.put("name", "note.txt");
        note.put("content", "QWhveSE=");
        return note;
    }

    /** As it is read again: a file without what is in it. */
    private static Object asRead(Object value) {
        return value.equals(note())
                ? Map.of(
                        "name",
                        "note.txt",
                        "type",
                        "text/plain",
                        "size",
                        5L,
                        "sha256",
                        "41fad04ef5fb5ec48f90767df8441c8150d4836ee8361aeadc1f83328021982d")
                : value;
    }

    private static Map<String, Object> money(String value, String currency) {
        var money = new LinkedHashMap<String, Object>();
        money.put("value", new BigDecimal(value));
        money.put("currency", currency);
        return money;
    }

    private static Map<String, String> files(String type, String travels) {
        var files = new TreeMap<String, String>();
        files.put("yard/package.yaml", "package: yard\nversion: 1\nlanguages: [en, de]\n");
        files.put("yard/choices/level.yaml", "choices: Level\ncodes: { one: One, two: Two }\n");
        files.put(
                "yard/objects/payer.yaml",
                "object: Payer\nkey: code\nfields:\n  code: { type: text, required: true }\n"
                        + "  what: { "
                        + type
                        + travels
                        + " }\n");
        files.put(
                "yard/objects/job.yaml",
                """
                object: Job
                key: code
                fields:
                  code: { type: text, required: true }
                  payer: { type: reference, to: Payer }
                parts:
                  hours:
                    fields: { count: { type: integer } }
                """);
        files.put(
                "yard/objects/bill.yaml",
                """
                object: Bill
                key: code
                fields:
                  code: { type: text, required: true }
                  job: { type: reference, to: Job }
                """);
        files.put(
                "yard/routes/papers.yaml",
                """
                route: papers
                steps:
                  - { from: Payer, to: Job, through: payer }
                  - { from: Job, to: Job.hours }
                  - { from: Job, to: Bill, through: job }
                """);
        return files;
    }

    private static void done(Outcome outcome) {
        assertThat(outcome).isInstanceOf(Outcome.Done.class);
    }

    private static void papers(Harness yard, String number) {
        done(yard.create("Job", "code", "J" + number, "payer", "P1", "hours", List.of(Map.of())));
        done(yard.create("Bill", "code", "B" + number, "job", "J" + number));
    }

    private static void isThere(Harness yard, String number, Object value) {
        assertThat(yard.show("Payer", "P1").get("what")).isEqualTo(value);
        assertThat(yard.show("Job", "J" + number).get("what")).isEqualTo(value);
        assertThat(yard.show("Bill", "B" + number).get("what")).isEqualTo(value);
        var hours = (List<?>) yard.show("Job", "J" + number).get("hours");
        assertThat(((Map<?, ?>) hours.getFirst()).get("what")).isEqualTo(value);
    }

    @ParameterizedTest
    @MethodSource("types")
    void aValueIsTheSameOnEveryDocument(String type, Object value, boolean follows) {
        try (var yard = new Harness(folder).release(files(type, ""))) {
            done(yard.create("Payer", "code", "P0"));
            done(yard.create("Payer", "code", "P1", "what", value));
            papers(yard, "1");

            yard.release(files(type, ", travels: papers"));
            isThere(yard, "1", asRead(value));
            papers(yard, "2");
            isThere(yard, "2", asRead(value));

            if (follows) {
                yard.release(files(type, ", travels: { route: papers, follows: true }"));
                isThere(yard, "1", value);
                done(yard.change("Payer", "P1", "what", null));
                assertThat(yard.show("Bill", "B1").get("what")).isNull();
                done(yard.change("Payer", "P1", "what", value));
                papers(yard, "3");
                isThere(yard, "3", value);
            }
        }
    }
}
