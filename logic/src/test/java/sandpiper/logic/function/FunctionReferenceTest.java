package sandpiper.logic.function;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import sandpiper.logic.run.Calculator;
import sandpiper.logic.value.Values;

/** The guide's reference is made from the table of functions, and the guide's examples are true. */
class FunctionReferenceTest {
    private static final Path GUIDE = Path.of("../docs/guide");

    @Test
    void theReferenceSaysWhatTheTableSays() throws IOException {
        var file = GUIDE.resolve("functions.md");
        var text = reference();
        if (Boolean.getBoolean("golden.write")) {
            Files.writeString(file, text);
        }

        assertThat(Files.readString(file))
                .as("differs from %s; -Dgolden.write=true rewrites it", file)
                .isEqualTo(text);
    }

    private static String reference() {
        var text =
                new StringBuilder(
                        """
                        # Built-in functions

                        Every function of FEEL (DMN 1.5, chapter 10.3.4), made from the table the service itself works
                        with; each example is run as a test. Arguments go by place, or by the names given here:
                        `substring(string: "N-07", start position: 3)`. A call that cannot be worked out comes to null.
                        """);
        Builtins.all().stream()
                .collect(
                        Collectors.groupingBy(
                                Builtin::chapter,
                                java.util.LinkedHashMap::new,
                                Collectors.toList()))
                .forEach((chapter, functions) -> {
                    text.append("\n## ").append(chapter).append("\n\n");
                    text.append("| function | what it does | example |\n| --- | --- | --- |\n");
                    functions.forEach(function -> row(function, text));
                });
        return text.toString();
    }

    private static void row(Builtin function, StringBuilder text) {
        text.append("| ")
                .append(code(function.written()))
                .append(" | ")
                .append(function.describe())
                .append(" | ")
                .append(
                        code(
                                function.examples().stream()
                                        .map(one -> one.expression() + " = " + one.result())
                                        .toList()))
                .append(" |\n");
    }

    private static String code(List<String> lines) {
        return lines.stream()
                .map(line -> "`" + line.replace("|", "\\|") + "`")
                .collect(Collectors.joining("<br>"));
    }

    /** Lines of the form {@code expression => result} in the guide's blocks. */
    @TestFactory
    Stream<DynamicTest> theGuidesExamplesAreTrue() throws IOException {
        var calculator = new Calculator(Clock.systemUTC());
        return Files.readAllLines(GUIDE.resolve("language.md")).stream()
                .filter(line -> line.contains(" => "))
                .map(line -> {
                    int at = line.lastIndexOf(" => ");
                    return DynamicTest.dynamicTest(
                            line,
                            () -> {
                                var value = calculator.evaluate(line.substring(0, at)).value();
                                var wanted = calculator.evaluate(line.substring(at + 4)).value();
                                assertThat(value == wanted || Values.same(value, wanted))
                                        .as("%s came to %s", line, value)
                                        .isTrue();
                            });
                });
    }
}
