package sandpiper.logic.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicContainer;
import org.junit.jupiter.api.DynamicNode;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;
import sandpiper.logic.function.Builtins;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.ValueText;
import sandpiper.logic.value.Values;

/** The language against the standard's text, a table for each part of its chapter. */
class ConformanceTest {
    private static final Path TABLES = Path.of("src/test/resources/conformance");
    private static final Calculator CALCULATOR =
            new Calculator(
                    Clock.fixed(Instant.parse("2026-05-01T10:00:00Z"), ZoneId.of("Europe/Berlin")));

    @TestFactory
    List<DynamicContainer> comesToWhatTheStandardSays() throws IOException {
        var containers = new ArrayList<DynamicContainer>();
        try (var files = Files.list(TABLES)) {
            for (var file : files.sorted().toList()) {
                containers.add(
                        DynamicContainer.dynamicContainer(
                                file.getFileName().toString(), cases(file)));
            }
        }
        return containers;
    }

    private static Stream<DynamicNode> cases(Path file) throws IOException {
        return Files.readAllLines(file).stream()
                .filter(line -> !line.isBlank() && !line.startsWith("#"))
                .map(line -> {
                    int at = line.lastIndexOf(" => ");
                    var expression = line.substring(0, at);
                    return DynamicTest.dynamicTest(
                            line, () -> assertComesTo(expression, line.substring(at + 4)));
                });
    }

    /** The examples people are shown in completion, in hover and in the guide. */
    @TestFactory
    Stream<DynamicNode> examplesOfBuiltInFunctionsAreTrue() {
        return Builtins.all().stream()
                .flatMap(function -> function.examples().stream())
                .map(example ->
                        DynamicTest.dynamicTest(
                                example.expression(),
                                () ->
                                        assertThat(
                                                        written(
                                                                CALCULATOR
                                                                        .evaluate(
                                                                                example
                                                                                        .expression())
                                                                        .value()))
                                                .isEqualTo(example.result())));
    }

    private static String written(Object value) {
        return value instanceof String ? ValueText.literal(value) : ValueText.of(value);
    }

    private static void assertComesTo(String expression, String expected) {
        var actual = CALCULATOR.evaluate(expression);
        var wanted = CALCULATOR.evaluate(expected);

        assertThat(wanted.problems()).as("the expected value can be read").isEmpty();
        assertThat(isSame(actual.value(), wanted.value()))
                .as(
                        "%s came to %s %s %s",
                        expression,
                        ValueText.literal(actual.value()),
                        actual.problems(),
                        actual.notes())
                .isTrue();
    }

    private static boolean isSame(Object actual, Object wanted) {
        return wanted == Nothing.NULL
                ? actual == Nothing.NULL
                : actual.getClass().isAssignableFrom(wanted.getClass())
                                && Values.same(actual, wanted)
                        || Values.same(actual, wanted);
    }
}
