package sandpiper.logic.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.logic.MarinaTypes;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.check.StepChecker;
import sandpiper.logic.value.Nothing;

/** Whatever is written: no crash, no hang, and a word about what was too much. */
class BoundsTest {
    private static final Calculator CALCULATOR = new Calculator(Clock.systemUTC());
    private static final List<String> WORDS =
            List.of(
                    "1",
                    "2.5",
                    "\"a\"",
                    "x",
                    "null",
                    "true",
                    "(",
                    ")",
                    "[",
                    "]",
                    "{",
                    "}",
                    ",",
                    ":",
                    "..",
                    ".",
                    "+",
                    "-",
                    "*",
                    "/",
                    "**",
                    "=",
                    "!=",
                    "<",
                    ">=",
                    "and",
                    "or",
                    "if",
                    "then",
                    "else",
                    "for",
                    "in",
                    "return",
                    "some",
                    "every",
                    "satisfies",
                    "instance of",
                    "number",
                    "function",
                    "between",
                    "count",
                    "sum",
                    "not",
                    "string length",
                    "date",
                    "@\"2026-05-01\"",
                    "@\"P1D\"",
                    "item",
                    "?",
                    "\"",
                    "set",
                    "end",
                    "each",
                    "find",
                    "where",
                    "take",
                    "reject",
                    "\n");

    @ParameterizedTest
    @ValueSource(
            strings = {
                "for i in 1..1000000000000 return i",
                "for i in 1..100000, j in 1..100000 return i * j",
                "{f: function(g) g(g), r: f(f)}.r",
                "count(for i in 1..1999999 return i)",
                "for i in 1..20000 return count(partial)",
                "10 ** 6000 ** 2",
                "every x in 1..100000000 satisfies x > 0"
            })
    void whatTakesTooMuchIsStoppedAndTold(String text) {
        Assertions.assertTimeoutPreemptively(
                Duration.ofSeconds(20),
                () -> {
                    var answer = CALCULATOR.evaluate(text);

                    assertThat(answer.value()).as(text).isEqualTo(Nothing.NULL);
                    assertThat(answer.notes()).as(text).isNotEmpty();
                });
    }

    @Provide
    Arbitrary<String> soups() {
        return Arbitraries.of(WORDS).list().ofMaxSize(40).map(words -> String.join(" ", words));
    }

    @Property(tries = 2_000)
    void anySoupOfWordsIsReadCheckedAndRun(@ForAll("soups") String text) {
        Assertions.assertTimeoutPreemptively(
                Duration.ofSeconds(10), () -> CALCULATOR.evaluate(text));
    }

    @Property(tries = 1_000)
    void anySoupOfStepsIsReadAndChecked(@ForAll("soups") String text) {
        Assertions.assertTimeoutPreemptively(
                Duration.ofSeconds(10),
                () ->
                        StepChecker.check(
                                text, NameContext.ofChange(MarinaTypes.WORLD, MarinaTypes.STAY)));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"1 + ", "not(", "-", "[", "{a: ", "x.y[", "if true then ", "(function(a) "})
    void deepNestingIsRefused(String opening) {
        var answer = CALCULATOR.evaluate(opening.repeat(2_000));

        assertThat(answer.problems()).isNotEmpty();
    }
}
