package sandpiper.logic.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.MathContext;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.IntRange;

/** The fast numbers against the exact ones. */
class DecimalTest {
    @Provide
    Arbitrary<BigDecimal> numbers() {
        var small = Arbitraries.longs().between(-1_000_000, 1_000_000);
        var any = Arbitraries.longs();
        var scales = Arbitraries.integers().between(0, 18);
        return Arbitraries.oneOf(small, any)
                .flatMap(unscaled -> scales.map(scale -> BigDecimal.valueOf(unscaled, scale)));
    }

    private static BigDecimal exact(Object value) {
        return ((Decimal) value).big();
    }

    @Property
    void reckonsAsExactDecimalsDo(
            @ForAll("numbers") BigDecimal a, @ForAll("numbers") BigDecimal b) {
        var x = Decimal.of(a);
        var y = Decimal.of(b);

        assertThat(exact(x.plus(y))).isEqualByComparingTo(a.add(b, MathContext.DECIMAL128));
        assertThat(exact(x.minus(y))).isEqualByComparingTo(a.subtract(b, MathContext.DECIMAL128));
        assertThat(exact(x.times(y))).isEqualByComparingTo(a.multiply(b, MathContext.DECIMAL128));
        assertThat(Integer.signum(x.compareTo(y))).isEqualTo(a.compareTo(b));
        if (b.signum() == 0) {
            assertThat(x.dividedBy(y)).isEqualTo(Nothing.NULL);
        } else {
            assertThat(exact(x.dividedBy(y)))
                    .isEqualByComparingTo(a.divide(b, MathContext.DECIMAL128));
        }
    }

    @Property
    void equalNumbersHaveEqualHashesHoweverTheyAreWritten(@ForAll("numbers") BigDecimal a) {
        var one = Decimal.of(a);
        var other = Decimal.of(a.setScale(a.scale() + 5));

        assertThat(one).isEqualTo(other).hasSameHashCodeAs(other);
        assertThat(one).hasToString(other.toString());
    }

    @Property
    void comparesWithDigitsAsWithTheNumberTheyAre(
            @ForAll("numbers") BigDecimal a,
            @ForAll long digits,
            @ForAll @IntRange(max = 18) int places) {
        assertThat(Integer.signum(Decimal.of(a).compareTo(digits, places)))
                .isEqualTo(a.compareTo(BigDecimal.valueOf(digits, places)));
    }
}
