package sandpiper.logic.value;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import org.jspecify.annotations.Nullable;

/**
 * FEEL's number: a decimal of 34 digits, DMN 1.5 §10.3.2.3.1 (IEEE 754 decimal128).
 *
 * <p>Nearly all numbers of business fit a {@code long} with a decimal point somewhere in it, and
 * are kept and reckoned with so; whatever does not fit goes through {@link BigDecimal}. Both are
 * exact.
 */
public final class Decimal implements Comparable<Decimal> {
    public static final Decimal ZERO = of(0);
    public static final Decimal ONE = of(1);

    private static final long[] POWERS = powers();

    /** Decimal places up to which the short form is used. */
    private static final int HIGHEST_SCALE = 18;

    /** Powers of ten tried to make a division come out even before it goes the long way. */
    private static final int EVEN_TRIES = 9;

    /** Ends of what can be written as a decimal128: 9.99E6144 and 1E-6176. */
    private static final int HIGHEST_EXPONENT = 6144;

    private static final int LARGEST_SCALE = 6176;

    private final long unscaled;
    private final int scale;
    private final @Nullable BigDecimal large;

    private Decimal(long unscaled, int scale, @Nullable BigDecimal large) {
        this.unscaled = unscaled;
        this.scale = scale;
        this.large = large;
    }

    private static long[] powers() {
        var powers = new long[HIGHEST_SCALE + 1];
        powers[0] = 1;
        for (int i = 1; i < powers.length; i++) {
            powers[i] = powers[i - 1] * 10;
        }
        return powers;
    }

    public static Decimal of(long value) {
        return new Decimal(value, 0, null);
    }

    /**
     * {@code unscaled} with the point moved left.
     *
     * @param scale 0 to 18
     */
    public static Decimal of(long unscaled, int scale) {
        return new Decimal(unscaled, scale, null);
    }

    /** Exactly this number, or {@code null} when no decimal128 holds it without rounding. */
    public static @Nullable Decimal tryExactly(BigDecimal value) {
        var made = tryOf(value);
        return made != null && made.big().compareTo(value) == 0 ? made : null;
    }

    /**
     * Rounds to 34 digits, half to even; {@code null} when it is larger than decimal128 holds. What
     * is too small has fewer digits, and in the end none.
     */
    public static @Nullable Decimal tryOf(BigDecimal value) {
        var rounded = value.round(MathContext.DECIMAL128);
        long exponent = (long) rounded.precision() - rounded.scale() - 1;
        if (rounded.signum() != 0 && exponent > HIGHEST_EXPONENT) {
            return null;
        }
        if (rounded.signum() == 0 || exponent < -LARGEST_SCALE - 1L) {
            return ZERO;
        }
        if (rounded.scale() > LARGEST_SCALE) {
            rounded = rounded.setScale(LARGEST_SCALE, RoundingMode.HALF_EVEN);
        }
        int scale = rounded.scale();
        if (scale < 0 && scale >= -HIGHEST_SCALE) {
            rounded = rounded.setScale(0);
            scale = 0;
        }
        var digits = rounded.unscaledValue();
        return digits.bitLength() < 64 && scale >= 0 && scale <= HIGHEST_SCALE
                ? new Decimal(digits.longValue(), scale, null)
                : new Decimal(0, 0, rounded);
    }

    /** As {@link #tryOf} for a value known to be in bounds. */
    public static Decimal of(BigDecimal value) {
        var made = tryOf(value);
        if (made == null) {
            throw new ArithmeticException("No decimal128 holds " + value);
        }
        return made;
    }

    public BigDecimal big() {
        return large == null ? BigDecimal.valueOf(unscaled, scale) : large;
    }

    private static Object result(BigDecimal value) {
        var made = tryOf(value);
        return made == null ? Nothing.NULL : made;
    }

    /** The sum, or {@link Nothing#NULL} when it is too large to be written. */
    public Object plus(Decimal other) {
        if (large == null && other.large == null) {
            if (scale == other.scale) {
                long sum = unscaled + other.unscaled;
                if (((unscaled ^ sum) & (other.unscaled ^ sum)) >= 0) {
                    return new Decimal(sum, scale, null);
                }
            } else {
                int to = Math.max(scale, other.scale);
                long left = POWERS[to - scale];
                long right = POWERS[to - other.scale];
                if (fits(unscaled, left) && fits(other.unscaled, right)) {
                    long a = unscaled * left;
                    long b = other.unscaled * right;
                    long sum = a + b;
                    if (((a ^ sum) & (b ^ sum)) >= 0) {
                        return new Decimal(sum, to, null);
                    }
                }
            }
        }
        return result(big().add(other.big(), MathContext.DECIMAL128));
    }

    private static boolean fits(long a, long b) {
        long high = Math.multiplyHigh(a, b);
        return (high == 0 && a * b >= 0) || (high == -1 && a * b < 0);
    }

    public Object minus(Decimal other) {
        return plus(other.negated());
    }

    public Decimal negated() {
        return large == null && unscaled != Long.MIN_VALUE
                ? new Decimal(-unscaled, scale, null)
                : of(big().negate());
    }

    /** The product, or {@link Nothing#NULL} when it is too large to be written. */
    public Object times(Decimal other) {
        if (large == null && other.large == null) {
            int sum = scale + other.scale;
            if (sum <= HIGHEST_SCALE && fits(unscaled, other.unscaled)) {
                return new Decimal(unscaled * other.unscaled, sum, null);
            }
        }
        return result(big().multiply(other.big(), MathContext.DECIMAL128));
    }

    /** The quotient to 34 digits, or {@link Nothing#NULL} when the divisor is 0. */
    public Object dividedBy(Decimal other) {
        if (other.signum() == 0) {
            return Nothing.NULL;
        }
        if (large == null && other.large == null && unscaled != Long.MIN_VALUE) {
            var even = dividedEvenly(other);
            if (even != null) {
                return even;
            }
        }
        return result(big().divide(other.big(), MathContext.DECIMAL128));
    }

    /** A quotient that comes out even with a few more digits, or {@code null}. */
    private @Nullable Decimal dividedEvenly(Decimal other) {
        long divisor = other.unscaled;
        if (divisor == -1) {
            divisor = 1;
            return negated().dividedEvenly(new Decimal(divisor, other.scale, null));
        }
        for (int more = 0; more <= EVEN_TRIES; more++) {
            long power = POWERS[more];
            if (!fits(unscaled, power)) {
                return null;
            }
            long dividend = unscaled * power;
            int to = scale + more - other.scale;
            if (to > HIGHEST_SCALE) {
                return null;
            }
            if (to >= 0 && dividend % divisor == 0) {
                return new Decimal(dividend / divisor, to, null);
            }
        }
        return null;
    }

    /** The number with its point moved right by some places, exactly. */
    public Decimal shifted(int places) {
        if (large == null && scale - places >= 0 && scale - places <= HIGHEST_SCALE) {
            return new Decimal(unscaled, scale - places, null);
        }
        return of(big().movePointRight(places));
    }

    /** The unscaled digits at a scale, rounded, or nothing when they do not fit a long. */
    public java.util.OptionalLong unscaled(int at, RoundingMode rounding) {
        if (large == null) {
            if (scale == at) {
                return java.util.OptionalLong.of(unscaled);
            }
            if (scale < at && at - scale <= HIGHEST_SCALE && fits(unscaled, POWERS[at - scale])) {
                return java.util.OptionalLong.of(unscaled * POWERS[at - scale]);
            }
        }
        var digits = big().setScale(at, rounding).unscaledValue();
        return digits.bitLength() < 64
                ? java.util.OptionalLong.of(digits.longValue())
                : java.util.OptionalLong.empty();
    }

    public int signum() {
        return large == null ? Long.signum(unscaled) : large.signum();
    }

    /** Whether there is nothing but zeros behind the point. */
    public boolean isWhole() {
        if (large == null) {
            return scale == 0 || unscaled % POWERS[scale] == 0;
        }
        return large.signum() == 0 || large.stripTrailingZeros().scale() <= 0;
    }

    /** The whole number, or nothing when it is not whole or does not fit an {@code int}. */
    public java.util.OptionalInt asInt() {
        if (!isWhole()) {
            return java.util.OptionalInt.empty();
        }
        if (large == null) {
            long value = unscaled / POWERS[scale];
            return value == (int) value
                    ? java.util.OptionalInt.of((int) value)
                    : java.util.OptionalInt.empty();
        }
        return large.precision() - (long) large.scale() > 11
                ? java.util.OptionalInt.empty()
                : asInt(large);
    }

    private static java.util.OptionalInt asInt(BigDecimal value) {
        long whole = value.longValue();
        return whole == (int) whole
                ? java.util.OptionalInt.of((int) whole)
                : java.util.OptionalInt.empty();
    }

    @Override
    public int compareTo(Decimal other) {
        if (large == null && other.large == null) {
            if (scale == other.scale) {
                return Long.compare(unscaled, other.unscaled);
            }
            int to = Math.max(scale, other.scale);
            long left = POWERS[to - scale];
            long right = POWERS[to - other.scale];
            if (fits(unscaled, left) && fits(other.unscaled, right)) {
                return Long.compare(unscaled * left, other.unscaled * right);
            }
        }
        return big().compareTo(other.big());
    }

    /**
     * Compares with {@code unscaled} with the point moved left, without making a number of it.
     *
     * @param at decimal places of the other, 0 to 18
     */
    public int compareTo(long digits, int at) {
        return large == null && scale == at
                ? Long.compare(unscaled, digits)
                : compareTo(new Decimal(digits, at, null));
    }

    /** Whether it is kept as a whole number with a point in it, as nearly all are. */
    public boolean isShort() {
        return large == null;
    }

    /** Its digits without the point; of a short one. */
    public long digits() {
        return unscaled;
    }

    /** Its decimal places; of a short one. */
    public int places() {
        return scale;
    }

    /** The same number, however many zeros it ends in. */
    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof Decimal that && compareTo(that) == 0;
    }

    @Override
    public int hashCode() {
        return big().signum() == 0 ? 0 : big().stripTrailingZeros().hashCode();
    }

    /** All digits, without zeros at the end and without an exponent: {@code 12.5}. */
    @Override
    public String toString() {
        if (signum() == 0) {
            return "0";
        }
        var stripped = big().stripTrailingZeros();
        return Math.abs((long) stripped.scale()) > 100
                ? stripped.toString()
                : stripped.toPlainString();
    }
}
