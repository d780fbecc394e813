package sandpiper.store.record;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Locale;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.value.RecordValue;
import sandpiper.model.type.TemporalType;

/**
 * A scalar with the decimal places of what is in it, 0 for all but numbers.
 *
 * @param percent whether it is a percent, which is written 19 and counts as 0.19
 */
record ScaledScalar(Scalar scalar, int scale, boolean percent, boolean smallLetters) {
    static final int PERCENT_PLACES = 2;

    static ScaledScalar plain(Scalar scalar) {
        return new ScaledScalar(scalar, 0, false, false);
    }

    static ScaledScalar number(Scalar scalar, int scale) {
        return new ScaledScalar(scalar, scale, false, false);
    }

    /** Decimal places when it is reckoned with. */
    int places() {
        return percent ? scale + PERCENT_PLACES : scale;
    }

    static Scalar times(Scalar scalar, int places) {
        return places == 0 ? scalar : new Scalar.Times(scalar, power(places));
    }

    /** Compared with another, both with as many decimal places. */
    Predicate compared(Operator operator, ScaledScalar right) {
        int most = Math.max(places(), right.places());
        return new Predicate.Compare(
                times(scalar, most - places()),
                operator,
                times(right.scalar(), most - right.places()));
    }

    static long power(int exponent) {
        return BigDecimal.TEN.pow(exponent).longValueExact();
    }

    /** Compared with a value that is known. */
    Predicate comparedToValue(Operator operator, Object value) {
        return switch (value) {
            case BigDecimal number -> number(operator, number);
            case String text when smallLetters -> bound(operator, text.toLowerCase(Locale.ROOT));
            default -> bound(operator, column(value));
        };
    }

    private Predicate bound(Operator operator, Object value) {
        return new Predicate.Compare(scalar, operator, new Scalar.Bound(value));
    }

    /** A value that is no number as a column holds it. */
    static Object column(Object value) {
        return switch (value) {
            case String text -> text;
            case Boolean flag -> flag ? 1L : 0L;
            case RecordValue record -> record.number();
            case LocalDate date -> date.toEpochDay();
            case LocalTime time -> time.toNanoOfDay() / 1000;
            case Instant instant -> TemporalType.micros(instant);
            case Duration duration -> TemporalType.micros(duration);
            default -> throw new IllegalArgumentException("No column holds " + value);
        };
    }

    /**
     * A number with more decimal places than the column can have lies between two of its values.
     */
    private Predicate number(Operator operator, BigDecimal number) {
        var scaled = number.movePointRight(scale);
        boolean exact = scaled.stripTrailingZeros().scale() <= 0;
        if (exact && fits(scaled)) {
            return bound(operator, scaled.longValueExact());
        }
        if (operator == Operator.EQUAL || operator == Operator.NOT_EQUAL) {
            return new Predicate.Always(operator == Operator.NOT_EQUAL);
        }
        var below = scaled.setScale(0, RoundingMode.FLOOR);
        long bound =
                fits(below)
                        ? below.longValueExact()
                        : below.signum() < 0 ? Long.MIN_VALUE : Long.MAX_VALUE;
        boolean upward = operator == Operator.GREATER || operator == Operator.GREATER_OR_EQUAL;
        return bound(upward ? Operator.GREATER : Operator.LESS_OR_EQUAL, bound);
    }

    static boolean fits(BigDecimal number) {
        return number.abs().compareTo(BigDecimal.valueOf(Long.MAX_VALUE)) <= 0;
    }
}
