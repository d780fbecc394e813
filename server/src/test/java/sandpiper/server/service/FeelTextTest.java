package sandpiper.server.service;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.Clock;
import java.util.Map;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.Operand;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;

/** Values of callers as literals of the language, and never anything else. */
public class FeelTextTest {
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "m/package.yaml",
                                    "package: m\nversion: 1\n",
                                    "m/objects/buoy.yaml",
                                    "object: Buoy\n"
                                        + "key: code\n"
                                        + "fields: { code: { type: text }, depth: { type: decimal,"
                                        + " scale: 9 } }\n"))
                    .release()
                    .orElseThrow();

    private static Condition condition(String text) {
        return ((Checked.Accepted)
                        ConditionChecker.check(
                                text,
                                RELEASE.recordType(RELEASE.object("Buoy")),
                                Clock.systemUTC()))
                .condition();
    }

    @Provide
    Arbitrary<String> texts() {
        return Arbitraries.strings().withChars("\"\\{}'\n\r\t ab\u00e4\u2603/n").ofMaxLength(15);
    }

    @Property
    void aTextInQuotesIsThatTextInTheLanguage(@ForAll("texts") String text) {
        var compared = (Condition.Compare) condition("code = " + FeelText.quoted(text));

        assertThat(((Operand.Value) compared.right()).value()).isEqualTo(text);
    }

    @ParameterizedTest
    @ValueSource(strings = {"0", "-1.5", "1E+3", "1e-5", "000.10", "+2"})
    void aNumberIsThatNumberInTheLanguage(String text) {
        var compared = (Condition.Compare) condition("depth = " + FeelText.number(text));

        assertThat(((Operand.Value) compared.right()).value().toString())
                .satisfies(value -> assertThat(new BigDecimal(value)).isEqualByComparingTo(text));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "x", "1,5", "1e999999999", "0x1F", "NaN"})
    void whatIsNoNumberIsNone(String text) {
        assertThatThrownBy(() -> FeelText.number(text)).isInstanceOf(NumberFormatException.class);
    }
}
