package sandpiper.logic.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.logic.MarinaTypes;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.ValueText;

/** A compiled expression: what it comes to, the names it reads, and what it notes. */
class CodeTest {
    private static final MarinaTypes.One STAY =
            MarinaTypes.One.of(
                    MarinaTypes.STAY,
                    "number",
                    "S-1",
                    "nights",
                    Decimal.of(4),
                    "open",
                    true,
                    "arrival",
                    LocalDate.of(2026, 5, 1),
                    "charges",
                    MarinaTypes.list(
                            MarinaTypes.One.of(
                                    MarinaTypes.CHARGE, "code", "A", "quantity", Decimal.of(2))),
                    "vessel",
                    MarinaTypes.One.of(
                            MarinaTypes.VESSEL, "registration", "GH-1", "length", Decimal.of(9)));

    private final Evaluation run =
            new Evaluation(
                    Instant.parse("2026-05-01T10:00:00Z"), ZoneOffset.UTC, RecordSource.NONE);

    private record Ready(Code code, Frame frame) {}

    private Ready ready(String text, LogicType wanted) {
        var setting =
                NameContext.ofChange(MarinaTypes.WORLD, MarinaTypes.STAY)
                        .with(Map.of("asked", LogicType.Simple.NUMBER));
        var checked = Checker.value(text, setting, wanted);
        assertThat(checked.problems()).filteredOn(one -> one.isError()).isEmpty();
        var code = Compiler.compile(checked);
        var frame = code.frame(run);
        frame.set(NameContext.THIS, STAY);
        frame.set(
                NameContext.OLD,
                MarinaTypes.One.of(MarinaTypes.STAY, "number", "S-1", "nights", Decimal.of(3)));
        frame.set(NameContext.IS_NEW, false);
        frame.set(NameContext.FIRST_NAME, Decimal.of(5));
        return new Ready(code, frame);
    }

    private Object value(String text) {
        var ready = ready(text, LogicType.Simple.ANY);
        return ready.code().run(ready.frame());
    }

    @Test
    void tellsTheNamesItReadWithTheirValues() {
        var ready =
                ready(
                        "nights > old.nights and vessel.length < asked and open and"
                                + " count(charges[quantity > 1]) > 0",
                        LogicType.Simple.BOOLEAN);
        assertThat(ready.code().names(ready.frame()))
                .containsExactly(
                        Map.entry("nights", Decimal.of(4)),
                        Map.entry("old.nights", Decimal.of(3)),
                        Map.entry("vessel.length", Decimal.of(9)),
                        Map.entry("asked", Decimal.of(5)),
                        Map.entry("open", true));
    }

    @Test
    void holdsOnlyWhatIsTrue() {
        for (var text : List.of("nights = 4", "open")) {
            var ready = ready(text, LogicType.Simple.BOOLEAN);
            assertThat(ready.code().holds(ready.frame())).isTrue();
        }
        for (var text : List.of("nights = 5", "departure > arrival")) {
            var ready = ready(text, LogicType.Simple.BOOLEAN);
            assertThat(ready.code().holds(ready.frame())).isFalse();
        }
    }

    @Test
    void whatChangedIsToldFromTheRecordAsItWas() {
        assertThat(value("changed(nights)")).isEqualTo(true);
        assertThat(value("changed(number)")).isEqualTo(false);
        assertThat(value("is new")).isEqualTo(false);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    for i in 3..1 return i                              | [3, 2, 1]
                    for i in (1..4) return i                            | [2, 3]
                    for i in (1..1) return i                            | []
                    for d in @"2026-05-02"..@"2026-04-30" return d.day  | [2, 1, 30]
                    for i in 1..3 return count(partial)                 | [0, 1, 2]
                    for i in 1..2, j in 1..i return j                   | [1, 1, 2]
                    some i in 1..3 satisfies i > 2                      | true
                    some i in 1..3 satisfies i > 3                      | false
                    every i in 1..3 satisfies i > 0                     | true
                    every i in 1..3 satisfies i > 1                     | false
                    some i in [] satisfies true                         | false
                    every i in [] satisfies false                       | true
                    [1, 2, 3][item > 1]                                 | [2, 3]
                    [1, 2, 3][2]                                        | 2
                    [1, 2, 3][-1]                                       | 3
                    charges.code                                        | ["A"]
                    2 in [1..3]                                         | true
                    3 in (1..3)                                         | false
                    2 in [[1..3], 7]                                    | true
                    7 in [[1..3], 7]                                    | true
                    8 in [[1..3], 7]                                    | false
                    {a: 1, b: a + 1}.b                                  | 2
                    [1..3] instance of range<number>                    | true
                    ["a".."c"] instance of range<number>                | false
                    [1, "a"] instance of list<number>                   | false
                    {a: 1} instance of context<a: number>               | true
                    {a: 1} instance of context<b: number>               | false
                    """)
    void comesTo(String text, String came) {
        assertThat(ValueText.of(value(text))).isEqualTo(ValueText.of(value(came)));
        assertThat(run.notes()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    [1, 2, 3][9]             | The list has no place 9.
                    for i in 1.5..3 return i | A loop runs between two whole numbers or two dates.
                    """)
    void whatHasNoResultIsNoted(String text, String note) {
        assertThat(value(text)).isEqualTo(Nothing.NULL);
        assertThat(run.notes()).containsExactly(note);
    }
}
