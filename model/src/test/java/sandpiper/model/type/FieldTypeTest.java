package sandpiper.model.type;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.re2j.Pattern;
import java.math.BigDecimal;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FieldTypeTest {
    private static final ZoneId BERLIN = ZoneId.of("Europe/Berlin");

    private static FieldType type(String name) {
        return switch (name) {
            case "text5" -> new TextType(TypeKeyword.TEXT, 5, null, false, List.of());
            case "lines" -> new TextType(TypeKeyword.TEXT, 50, null, true, List.of());
            case "berth" ->
                    new TextType(
                            TypeKeyword.TEXT,
                            9,
                            Pattern.compile("[A-Z]-[0-9]{2}"),
                            false,
                            List.of());
            case "email" -> TextType.email();
            case "phone" -> TextType.phone();
            case "web" -> TextType.webAddress();
            case "integer" -> NumberType.integer();
            case "decimal2" -> new NumberType(TypeKeyword.DECIMAL, 2, null);
            case "boolean" -> new BooleanType();
            case "uuid" -> new UuidType();
            case "choice" -> new ChoiceType(new ChoiceList("Kind", Map.of("sail", "Sail")));
            case "money" -> new MoneyType(2);
            default -> new TemporalType(TypeKeyword.of(name), BERLIN);
        };
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            textBlock =
                    """
                    text5     | gülls                                | gülls
                    lines     | a\\nb                                | a\\nb
                    berth     | N-07                                 | N-07
                    email     | ann@example.org                      | ann@example.org
                    phone     | +49 (4321) 555-0                     | +49 (4321) 555-0
                    web       | https://example.org/x?y=1            | https://example.org/x?y=1
                    integer   | -42                                  | -42
                    integer   | 1E+3                                 | 1000
                    decimal2  | 12.5                                 | 12.50
                    decimal2  | -0.05                                | -0.05
                    boolean   | true                                 | true
                    date      | 2026-02-28                           | 2026-02-28
                    date      | 0001-01-01                           | 0001-01-01
                    time      | 06:00                                | 06:00:00
                    time      | 23:59:59.123456                      | 23:59:59.123456
                    date-time | 2026-05-01T14:30:00+02:00            | 2026-05-01T12:30:00Z
                    date-time | 2026-05-01T14:30:00                  | 2026-05-01T12:30:00Z
                    date-time | 1969-12-31T23:59:59.5Z               | 1969-12-31T23:59:59.500Z
                    duration  | P1DT6H                               | P1DT6H
                    uuid      | 0198C0DE-7A5E-7000-8000-000000000001 | 0198c0de-7a5e-7000-8000-000000000001
                    choice    | sail                                 | sail
                    money     | 12.5 EUR                             | 12.50 EUR
                    """)
    void readsTextAndWritesItInOneForm(String type, String text, String written) {
        var intake = type(type).readText(text.replace("\\n", "\n"));

        assertThat(intake).isInstanceOf(ParsedValue.Taken.class);
        assertThat(type(type).writeText(((ParsedValue.Taken) intake).value()))
                .isEqualTo(written.replace("\\n", "\n"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            textBlock =
                    """
                    text5     | seagull                  | TOO_LONG
                    text5     | a\\nb                    | BAD_TEXT
                    text5     | a\\0b                    | BAD_TEXT
                    berth     | north 7                  | PATTERN
                    email     | ann at example           | PATTERN
                    phone     | call me                  | PATTERN
                    web       | javascript:alert(1)      | PATTERN
                    integer   | 1.5                      | TOO_PRECISE
                    integer   | 9007199254740992         | OUT_OF_RANGE
                    integer   | 1e999999999              | OUT_OF_RANGE
                    integer   | ten                      | WRONG_TYPE
                    decimal2  | 1.005                    | TOO_PRECISE
                    decimal2  | 99999999999999.99        | OUT_OF_RANGE
                    boolean   | yes                      | WRONG_TYPE
                    date      | 2026-02-30               | WRONG_TYPE
                    date      | 10000-01-01              | WRONG_TYPE
                    date      | 01.05.2026               | WRONG_TYPE
                    time      | 25:00                    | WRONG_TYPE
                    date-time | 2026-05-01               | WRONG_TYPE
                    duration  | P1Y                      | WRONG_TYPE
                    uuid      | 42                       | WRONG_TYPE
                    choice    | sale                     | UNKNOWN_CHOICE
                    money     | 12.50                    | WRONG_TYPE
                    money     | 12.50 XXQ                | UNKNOWN_CHOICE
                    """)
    void refusesWhatIsNotAValueAndSaysWhatMustBe(String type, String text, ValueCode code) {
        var intake = type(type).readText(text.replace("\\n", "\n").replace("\\0", "\0"));

        assertThat(intake)
                .isInstanceOfSatisfying(
                        ParsedValue.Refused.class,
                        refused -> {
                            assertThat(refused.code()).isEqualTo(code);
                            assertThat(refused.message()).matches("(must|may|has|have).*");
                        });
    }

    @Test
    void aNumberSentAsTextIsNotANumber() {
        assertThat(type("decimal2").read("12.5")).isInstanceOf(ParsedValue.Refused.class);
        assertThat(type("date").read(20260501L)).isInstanceOf(ParsedValue.Refused.class);
    }

    @Test
    void aLocalisedTextTakesLanguagesItKnows() {
        var name = new TextType(TypeKeyword.TEXT, 10, null, false, List.of("en", "de"));

        assertThat(name.read(Map.of("en", "North", "de", "Nord")))
                .isEqualTo(ParsedValue.taken(new Localised(List.of("North", "Nord"))));
        assertThat(name.read(Map.of("fr", "Nord")))
                .isInstanceOfSatisfying(
                        ParsedValue.Refused.class,
                        refused ->
                                assertThat(refused.code()).isEqualTo(ValueCode.UNKNOWN_LANGUAGE));
        assertThat(name.read("North")).isInstanceOf(ParsedValue.Taken.class);
    }

    @Property
    void aDecimalComesBackAsItWas(
            @ForAll @LongRange(min = -999_999_999_999_999L, max = 999_999_999_999_999L)
                    long unscaled) {
        var type = new NumberType(TypeKeyword.DECIMAL, 4, null);
        var value = BigDecimal.valueOf(unscaled, 4);

        assertThat(type.read(value)).isEqualTo(ParsedValue.taken(unscaled));
        assertThat(type.write(unscaled)).isEqualTo(value);
    }

    @Property
    void everyMomentComesBackAsItWas(
            @ForAll @LongRange(min = -62_135_596_800_000_000L, max = 253_402_300_799_999_999L)
                    long micros) {
        var type = new TemporalType(TypeKeyword.DATE_TIME, BERLIN);

        assertThat(type.readText(type.writeText(micros))).isEqualTo(ParsedValue.taken(micros));
    }
}
