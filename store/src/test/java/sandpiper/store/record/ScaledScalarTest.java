package sandpiper.store.record;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import java.util.Objects;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import sandpiper.logic.syntax.Operator;

/** Numbers are stored whole: whatever they are compared with comes to what arithmetic says. */
class ScaledScalarTest {
    private static final Scalar COLUMN = new Scalar.Column(new ColumnRef(List.of(), "n"));

    /** What a predicate says of a row whose column holds {@code stored}. */
    private static boolean holds(Predicate predicate, long stored) {
        return switch (predicate) {
            case Predicate.Always(boolean truth) -> truth;
            case Predicate.Compare(var left, var operator, var right) ->
                    holds(operator, value(left, stored).compareTo(value(right, stored)));
            default -> throw new AssertionError(predicate);
        };
    }

    private static BigInteger value(Scalar scalar, long stored) {
        return switch (scalar) {
            case Scalar.Column _ -> BigInteger.valueOf(stored);
            case Scalar.Bound(var value) ->
                    BigInteger.valueOf((Long) Objects.requireNonNull(value));
            case Scalar.Times(var inner, long by) ->
                    value(inner, stored).multiply(BigInteger.valueOf(by));
            default -> throw new AssertionError(scalar);
        };
    }

    private static boolean holds(Operator operator, int order) {
        return switch (operator) {
            case EQUAL -> order == 0;
            case NOT_EQUAL -> order != 0;
            case LESS -> order < 0;
            case LESS_OR_EQUAL -> order <= 0;
            case GREATER -> order > 0;
            case GREATER_OR_EQUAL -> order >= 0;
        };
    }

    @Provide
    Arbitrary<BigDecimal> numbers() {
        return Arbitraries.bigDecimals()
                .between(new BigDecimal("-1000"), new BigDecimal("1000"))
                .ofScale(4);
    }

    /** Those with more places than the column has too, which lie between two of its values. */
    @Property(tries = 500)
    void aNumberIsComparedAsItIs(
            @ForAll @LongRange(min = -99_999, max = 99_999) long stored,
            @ForAll @IntRange(max = 3) int scale,
            @ForAll Operator operator,
            @ForAll("numbers") BigDecimal number) {
        var predicate = ScaledScalar.number(COLUMN, scale).comparedToValue(operator, number);

        assertThat(holds(predicate, stored))
                .isEqualTo(holds(operator, BigDecimal.valueOf(stored, scale).compareTo(number)));
    }

    @Property(tries = 200)
    void aNumberBeyondAllColumnsIsAboveOrBelowAll(
            @ForAll @LongRange(min = -99_999, max = 99_999) long stored,
            @ForAll Operator operator,
            @ForAll boolean below) {
        var huge = new BigDecimal(below ? "-1E+30" : "1E+30");
        var predicate = ScaledScalar.number(COLUMN, 2).comparedToValue(operator, huge);

        assertThat(holds(predicate, stored))
                .isEqualTo(holds(operator, BigDecimal.valueOf(stored, 2).compareTo(huge)));
    }

    @Property(tries = 200)
    void twoColumnsAreBroughtToOneScale(
            @ForAll @LongRange(min = -9_999, max = 9_999) long stored,
            @ForAll @LongRange(min = -9_999, max = 9_999) long other,
            @ForAll @IntRange(max = 4) int scale,
            @ForAll @IntRange(max = 4) int otherScale,
            @ForAll Operator operator) {
        var right = ScaledScalar.number(new Scalar.Bound(other), otherScale);
        var predicate = ScaledScalar.number(COLUMN, scale).compared(operator, right);

        var order =
                BigDecimal.valueOf(stored, scale).compareTo(BigDecimal.valueOf(other, otherScale));
        assertThat(holds(predicate, stored)).isEqualTo(holds(operator, order));
    }

    /** 19 percent is 0.19 beside another number. */
    @Test
    void aPercentCountsAsItsHundredth() {
        var percent = new ScaledScalar(COLUMN, 0, true, false);
        var number = ScaledScalar.number(new Scalar.Bound(19L), 2);

        assertThat(percent.places()).isEqualTo(2);
        assertThat(holds(percent.compared(Operator.EQUAL, number), 19)).isTrue();
        assertThat(holds(percent.compared(Operator.EQUAL, number), 20)).isFalse();
    }

    @Test
    void textInSmallLettersIsComparedInSmallLetters() {
        var small = new ScaledScalar(COLUMN, 0, false, true);

        assertThat(small.comparedToValue(Operator.EQUAL, "Grüße"))
                .isEqualTo(
                        new Predicate.Compare(COLUMN, Operator.EQUAL, new Scalar.Bound("grüße")));
        assertThat(ScaledScalar.plain(COLUMN).comparedToValue(Operator.EQUAL, "Grüße"))
                .isEqualTo(
                        new Predicate.Compare(COLUMN, Operator.EQUAL, new Scalar.Bound("Grüße")));
    }

    @Test
    void eachKindOfValueHasItsPlaceInAColumn() {
        assertThat(ScaledScalar.column(true)).isEqualTo(1L);
        assertThat(ScaledScalar.column(false)).isEqualTo(0L);
        assertThat(ScaledScalar.column(LocalDate.of(1970, 1, 3))).isEqualTo(2L);
        assertThat(ScaledScalar.column(LocalTime.of(0, 0, 1))).isEqualTo(1_000_000L);
        assertThat(ScaledScalar.column(Instant.ofEpochSecond(2))).isEqualTo(2_000_000L);
        assertThat(ScaledScalar.column(Duration.ofMillis(-3))).isEqualTo(-3_000L);
        assertThatThrownBy(() -> ScaledScalar.column(List.of()))
                .isInstanceOf(IllegalArgumentException.class);
    }
}
