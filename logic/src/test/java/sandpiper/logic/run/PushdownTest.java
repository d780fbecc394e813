package sandpiper.logic.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.logic.MarinaTypes;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.Operand;
import sandpiper.logic.condition.Selection;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.ValueText;

/** What of an expression is left to the store, and what is done with what it finds. */
class PushdownTest {
    /** Gives what it is told to, and writes down what it was asked for. */
    private static final class Store implements RecordSource {
        private final List<String> asked = new ArrayList<>();
        private final List<Object> found;
        private final Object total;

        Store(List<Object> found, Object total) {
            this.found = found;
            this.total = total;
        }

        private static String text(Selection selection) {
            var owner = selection.owner();
            return "%s%s%s%s%s"
                    .formatted(
                            selection.records().name(),
                            owner == null
                                    ? ""
                                    : " of " + owner.written() + " by " + selection.path(),
                            selection.condition() == null
                                    ? ""
                                    : " where " + text(selection.condition()),
                            selection.order().isEmpty()
                                    ? ""
                                    : " order "
                                            + selection.order().stream()
                                                    .map(one ->
                                                            one.path()
                                                                    + (one.descending()
                                                                            ? " down"
                                                                            : ""))
                                                    .toList(),
                            selection.most() < 0 ? "" : " most " + selection.most());
        }

        private static String text(Condition condition) {
            return condition
                            instanceof
                            Condition.Compare(
                                    Operand.Field field,
                                    var operator,
                                    Operand.Value value)
                    ? field.written() + " " + operator.symbol() + " " + value.value()
                    : condition.getClass().getSimpleName();
        }

        @Override
        public List<Object> select(Selection selection) {
            asked.add(text(selection));
            return found;
        }

        @Override
        public Object total(Selection selection, Selection.Total wanted) {
            asked.add("%s %s of %s".formatted(wanted.function(), wanted.value(), text(selection)));
            return total;
        }
    }

    private static MarinaTypes.One stay(String number, @Nullable Integer nights) {
        return MarinaTypes.One.of(
                MarinaTypes.STAY,
                "number",
                number,
                "nights",
                nights == null ? Nothing.NULL : Decimal.of(nights));
    }

    private static MarinaTypes.One charge(String code, @Nullable Integer quantity) {
        return MarinaTypes.One.of(
                MarinaTypes.CHARGE,
                "code",
                code,
                "quantity",
                quantity == null ? Nothing.NULL : Decimal.of(quantity));
    }

    private static final MarinaTypes.One VESSEL =
            MarinaTypes.One.of(MarinaTypes.VESSEL, "registration", "GH-1", "length", Decimal.of(9));

    private static final MarinaTypes.One STAY =
            MarinaTypes.One.of(
                    MarinaTypes.STAY,
                    "number",
                    "S-1",
                    "nights",
                    Decimal.of(4),
                    "vessel",
                    VESSEL,
                    "charges",
                    MarinaTypes.list(
                            charge("C", 3), charge("A", 1), charge("N", null), charge("B", 1)));

    private static Object run(String text, MarinaTypes.One record, Store store, int budget) {
        var checked =
                Checker.value(
                        text,
                        NameContext.of(MarinaTypes.WORLD, MarinaTypes.STAY)
                                .with(Map.of("two", LogicType.Simple.NUMBER)),
                        LogicType.Simple.ANY);
        assertThat(checked.problems()).filteredOn(one -> one.isError()).isEmpty();
        var run =
                new Evaluation(
                        Instant.parse("2026-05-01T10:00:00Z"), ZoneOffset.UTC, store, budget);
        var code = Compiler.compile(checked);
        var frame = code.frame(run);
        frame.set(NameContext.THIS, record);
        frame.set(NameContext.FIRST_NAME, Decimal.of(2));
        return code.run(frame);
    }

    private static String run(String text, Store store) {
        return text(run(text, STAY, store, 10_000));
    }

    private static String text(Object value) {
        return switch (value) {
            case List<?> list -> list.stream().map(PushdownTest::text).toList().toString();
            case RecordValue record -> record.written();
            case Nothing _ -> "-";
            default -> ValueText.of(value);
        };
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    Stay                                                  | Stay
                    Stay[nights > 3]                                      | Stay where nights > 3
                    Stay[nights > this.nights + two]                     | Stay where nights > 6
                    vessel.stays[nights > 3]                              | Stay of GH-1 by [vessel] where nights > 3
                    find Stay                                             | Stay
                    find Stay take two                                   | Stay most 2
                    find Stay take 0 - 5                                  |
                    find Stay where nights = 3 order by arrival           | Stay where nights = 3 order [[arrival]]
                    find Stay order by vessel.length descending, number   | Stay order [[vessel, length] down, [number]]
                    find first Stay                                       | Stay most 1
                    """)
    void recordsAreFoundByTheStore(String text, @Nullable String asked) {
        var store = new Store(List.of(stay("S-2", 1), stay("S-3", 2)), Nothing.NULL);
        var came = run(text, store);
        assertThat(store.asked).isEqualTo(asked == null ? List.of() : List.of(asked));
        assertThat(came)
                .isEqualTo(asked == null ? "[]" : text.contains("first") ? "S-2" : "[S-2, S-3]");
    }

    @Test
    void ofNoOwnerThereIsNothing() {
        var alone = MarinaTypes.One.of(MarinaTypes.STAY, "number", "S-9");
        var store = new Store(List.of(stay("S-2", 1)), Decimal.of(8));
        assertThat(run("vessel.stays[nights > 3]", alone, store, 1_000)).isEqualTo(List.of());
        assertThat(run("count(vessel.stays)", alone, store, 1_000)).isEqualTo(Decimal.ZERO);
        assertThat(run("max(vessel.stays.nights)", alone, store, 1_000)).isEqualTo(Nothing.NULL);
        assertThat(store.asked).isEmpty();
        var none = new Store(List.of(), Nothing.NULL);
        assertThat(run("find first Stay", none)).isEqualTo("-");
        assertThat(none.asked).containsExactly("Stay most 1");
    }

    @Test
    void whatIsFoundIsPaidFor() {
        var store =
                new Store(List.of(stay("S-2", 1), stay("S-3", 2), stay("S-4", 2)), Nothing.NULL);
        assertThat(run("Stay", STAY, store, 3))
                .asInstanceOf(org.assertj.core.api.InstanceOfAssertFactories.LIST)
                .hasSize(3);
        assertThatThrownBy(() -> run("Stay", STAY, store, 2)).isInstanceOf(BudgetException.class);
        assertThatThrownBy(() -> run("find Stay take 3", STAY, store, 2))
                .isInstanceOf(BudgetException.class);
    }

    /** An order the store cannot make is made here, with what is empty first. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    find Stay order by nights * 2                           | [S-4, S-3, S-2, S-5]
                    find Stay order by nights * 2 descending                | [S-5, S-2, S-3, S-4]
                    find Stay order by nights * 0, number descending        | [S-4, S-5, S-3, S-2]
                    find Stay order by nights * 2 take two                 | [S-4, S-3]
                    find Stay order by nights * 2 take 9                    | [S-4, S-3, S-2, S-5]
                    find Stay order by nights * 2 take 0 - 1                | []
                    find first Stay order by nights * 2                     | S-4
                    find Stay where nights / 2 > 1 order by nights          | [S-2, S-5]
                    find first Stay where nights / 2 > 100                  | -
                    """)
    void orderedHereWhereTheStoreCannot(String text, String came) {
        var store =
                new Store(
                        List.of(stay("S-2", 5), stay("S-3", 2), stay("S-4", null), stay("S-5", 9)),
                        Nothing.NULL);
        assertThat(run(text, store)).isEqualTo(came);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    count(Stay)                        | count [] of Stay
                    count(Stay[nights > 3])            | count [] of Stay where nights > 3
                    sum(vessel.stays.nights)           | sum [nights] of Stay of GH-1 by [vessel]
                    min(Stay.nights)                   | min [nights] of Stay
                    max(Stay.vessel.length)            | max [vessel, length] of Stay
                    """)
    void totalsAreWorkedOutByTheStore(String text, String asked) {
        var store = new Store(List.of(), Decimal.of(8));
        assertThat(run(text, store)).isEqualTo("8");
        assertThat(store.asked).containsExactly(asked);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    count(Stay)                                     | 0
                    sum(Stay.nights)                                | 0
                    min(Stay.nights)                                | -
                    count(charges[quantity > 9])                    | 0
                    sum(charges[quantity > 9].quantity)             | 0
                    max(charges[quantity > 9].quantity)             | -
                    mean(charges[quantity > 9].quantity)            | -
                    sum(charges.quantity)                           | 5
                    count(charges.quantity)                         | 3
                    max(charges.quantity)                           | 3
                    """)
    void nothingAddsUpToNothingAndEmptyValuesPlayNoPart(String text, String came) {
        assertThat(run(text, new Store(List.of(), Nothing.NULL))).isEqualTo(came);
    }

    @Test
    void durationsOfNoRecordsAddUpToNone() {
        var none = new Store(List.of(), Nothing.NULL);
        assertThat(run("sum(for s in Stay return s.departure - s.arrival)", STAY, none, 1_000))
                .isEqualTo(Duration.ZERO);
    }
}
