package sandpiper.logic.function;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PatternWeightTest {
    @ParameterizedTest
    @ValueSource(
            strings = {
                "((za{100}){100}){100}",
                "(a{1000}){1000}",
                "((a{50}b{50}){60})+",
                "[a-z]{1000}",
                "(\\p{L}{30}){30}"
            })
    void repeatsInsideRepeatsAreHeavy(String pattern) {
        assertThat(PatternWeight.of(pattern)).isGreaterThan(5_000);
        assertThat(Patterns.compiled(pattern, "")).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "^[A-Z]{2}-[0-9]{1,6}$",
                "(a|b)*c{3,}",
                "\\d{4}-\\d{2}-\\d{2}",
                "[a-z-[aeiou]]+",
                "a{b}",
                "((x)"
            })
    void whatPeopleWriteIsLight(String pattern) {
        assertThat(PatternWeight.of(pattern)).isLessThan(200);
    }

    @Test
    void manyPatternsDoNotStayForEver() {
        for (int i = 0; i < 5_000; i++) {
            assertThat(Patterns.compiled("a{500}" + i, "")).isPresent();
        }
    }
}
