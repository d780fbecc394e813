package sandpiper.logic.syntax;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import sandpiper.logic.run.Calculator;
import sandpiper.logic.value.ValueText;

class ExprTextTest {
    private static final Calculator CALCULATOR =
            new Calculator(
                    Clock.fixed(Instant.parse("2026-05-01T10:00:00Z"), ZoneId.of("Europe/Berlin")));

    static Stream<String> tables() throws IOException {
        try (var files = Files.list(Path.of("src/test/resources/conformance"))) {
            return files.map(Path::toString).sorted().toList().stream();
        }
    }

    /** Every case of the standard's tables that can be read, written anew. */
    @ParameterizedTest
    @MethodSource("tables")
    void whatIsWrittenAnewComesToTheSame(String table) throws IOException {
        int seen = 0;
        for (var line : Files.readAllLines(Path.of(table))) {
            int at = line.lastIndexOf(" => ");
            if (at < 0 || line.startsWith("#")) {
                continue;
            }
            var text = line.substring(0, at);
            var parsed = Parser.parse(text);
            if (!parsed.problems().isEmpty()) {
                continue;
            }
            var again = ExprText.of(parsed.expr());
            assertThat(ValueText.of(CALCULATOR.evaluate(again).value()))
                    .as("%s, written as %s", text, again)
                    .isEqualTo(ValueText.of(CALCULATOR.evaluate(text).value()));
            assertThat(ExprText.of(Parser.parse(again).expr())).isEqualTo(again);
            seen++;
        }
        assertThat(seen).isPositive();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    ((a)+(b))*c           | (a + b) * c
                    a-(b-c)-d             | a - (b - c) - d
                    (a or b) and c        | (a or b) and c
                    a or (b and c)        | a or b and c
                    (if a then b else c)=1| (if a then b else c) = 1
                    x in 1                | x in (1)
                    x in (< 5,[1..2])     | x in (< 5, [1..2])
                    -(-a)                 | --a
                    """)
    void bracketsStandWhereTheyAreNeeded(String text, String expected) {
        assertThat(ExprText.of(Parser.parse(text).expr())).isEqualTo(expected);
    }

    @Test
    void textKeepsItsQuotes() {
        assertThat(ExprText.of(Parser.parse("\"a \\\"b\\\" \\\\ c\"").expr()))
                .isEqualTo("\"a \\\"b\\\" \\\\ c\"");
    }
}
