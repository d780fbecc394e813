package sandpiper.logic.run;

import ch.obermuhlner.math.big.BigDecimalMath;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDate;
import sandpiper.logic.syntax.ArithmeticOperator;
import sandpiper.logic.value.Amount;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Moment;
import sandpiper.logic.value.Months;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.TimeOfDay;
import sandpiper.logic.value.Values;

/** Sums, products and powers, DMN 1.5 §10.3.2.12. What has no result is null, with a note. */
final class ArithmeticOps {
    /** More digits than a number has, for what goes on being reckoned with. */
    private static final MathContext PRECISE = new MathContext(50);

    /** Decimal exponent beyond which no power is worked out. */
    private static final double HIGHEST_EXPONENT = 6177;

    private ArithmeticOps() {}

    static Op op(ArithmeticOperator operator, Op left, Op right) {
        return switch (operator) {
            case PLUS -> frame -> plus(left.eval(frame), right.eval(frame), frame.run());
            case MINUS -> frame -> minus(left.eval(frame), right.eval(frame), frame.run());
            case TIMES -> frame -> times(left.eval(frame), right.eval(frame), frame.run());
            case DIVIDE -> frame -> divided(left.eval(frame), right.eval(frame), frame.run());
            case POWER -> frame -> power(left.eval(frame), right.eval(frame), frame.run());
        };
    }

    static Object plus(Object a, Object b, Evaluation run) {
        return a instanceof Decimal x && b instanceof Decimal y
                ? x.plus(y)
                : slow(ArithmeticOperator.PLUS, a, b, run);
    }

    static Object minus(Object a, Object b, Evaluation run) {
        return a instanceof Decimal x && b instanceof Decimal y
                ? x.minus(y)
                : slow(ArithmeticOperator.MINUS, a, b, run);
    }

    static Object times(Object a, Object b, Evaluation run) {
        return a instanceof Decimal x && b instanceof Decimal y
                ? x.times(y)
                : slow(ArithmeticOperator.TIMES, a, b, run);
    }

    static Object divided(Object a, Object b, Evaluation run) {
        return a instanceof Decimal x && b instanceof Decimal y
                ? divided(x, y, run)
                : slow(ArithmeticOperator.DIVIDE, a, b, run);
    }

    static Object power(Object a, Object b, Evaluation run) {
        return a instanceof Decimal x && b instanceof Decimal y
                ? power(x, y, run)
                : slow(ArithmeticOperator.POWER, a, b, run);
    }

    private static Object divided(Decimal a, Decimal b, Evaluation run) {
        if (b.signum() == 0) {
            run.note("This divides by 0.");
        }
        return a.dividedBy(b);
    }

    private static Object slow(ArithmeticOperator operator, Object a, Object b, Evaluation run) {
        try {
            if (operator == ArithmeticOperator.PLUS
                    && a instanceof String x
                    && b instanceof String y) {
                // Looked at before, since making it is what costs.
                run.spendText((long) x.length() + y.length());
            }
            var result =
                    switch (operator) {
                        case PLUS -> plus(a, b);
                        case MINUS -> minus(a, b);
                        case TIMES -> times(a, b);
                        case DIVIDE -> quotient(a, b);
                        case POWER -> Nothing.NULL;
                    };
            if (result == Nothing.NULL && a != Nothing.NULL && b != Nothing.NULL) {
                run.note(
                        "%s %s %s has no result."
                                .formatted(Values.kind(a), operator.symbol(), Values.kind(b)));
            }
            return result;
        } catch (DateTimeException | ArithmeticException _) {
            run.note("The result is beyond all dates and durations.");
            return Nothing.NULL;
        }
    }

    private static Object plus(Object a, Object b) {
        return switch (a) {
            case String x when b instanceof String y -> x + y;
            case Duration x when b instanceof Duration y -> x.plus(y);
            case Months x when b instanceof Months y ->
                    new Months(Math.addExact(x.count(), y.count()));
            case Amount x -> amounts(x, b, 1);
            case Decimal x when b instanceof Amount y -> amounts(y, x, 1);
            case Duration _, Months _ -> isPoint(b) ? moved(b, a, 1) : Nothing.NULL;
            default -> isPoint(a) ? moved(a, b, 1) : Nothing.NULL;
        };
    }

    private static boolean isPoint(Object value) {
        return value instanceof LocalDate || value instanceof Moment || value instanceof TimeOfDay;
    }

    /** An amount with another, or with a plain number, added or taken off. */
    private static Object amounts(Amount a, Object b, int sign) {
        if (b instanceof Amount y && !y.currency().equals(a.currency())) {
            return Nothing.NULL;
        }
        var other = b instanceof Amount y ? y.value() : b;
        if (!(other instanceof Decimal number)) {
            return Nothing.NULL;
        }
        var result = sign > 0 ? a.value().plus(number) : a.value().minus(number);
        return result instanceof Decimal sum ? new Amount(sum, a.currency()) : Nothing.NULL;
    }

    /** A point in time moved by a duration. */
    private static Object moved(Object point, Object by, int sign) {
        return switch (point) {
            case LocalDate date ->
                    switch (by) {
                        case Months months -> date.plusMonths(sign * months.count());
                        case Duration duration ->
                                date.atStartOfDay()
                                        .plus(sign > 0 ? duration : duration.negated())
                                        .toLocalDate();
                        default -> Nothing.NULL;
                    };
            case Moment moment ->
                    switch (by) {
                        case Months months ->
                                new Moment(
                                        moment.local().plusMonths(sign * months.count()),
                                        moment.zone());
                        case Duration duration ->
                                later(moment, sign > 0 ? duration : duration.negated());
                        default -> Nothing.NULL;
                    };
            case TimeOfDay time when by instanceof Duration duration ->
                    new TimeOfDay(
                            time.time().plus(sign > 0 ? duration : duration.negated()),
                            time.zone());
            default -> Nothing.NULL;
        };
    }

    private static Moment later(Moment moment, Duration by) {
        var zone = moment.zone();
        return zone == null
                ? new Moment(moment.local().plus(by), null)
                : Moment.of(moment.instant(zone).plus(by), zone);
    }

    private static Object minus(Object a, Object b) {
        return switch (a) {
            case Duration x when b instanceof Duration y -> x.minus(y);
            case Months x when b instanceof Months y ->
                    new Months(Math.subtractExact(x.count(), y.count()));
            case LocalDate x when b instanceof LocalDate y ->
                    Duration.ofDays(Math.subtractExact(x.toEpochDay(), y.toEpochDay()));
            case Moment x when b instanceof Moment y -> between(y, x);
            case Moment x when b instanceof LocalDate y -> between(Moment.of(y), x);
            case LocalDate x when b instanceof Moment y -> between(y, Moment.of(x));
            case TimeOfDay x when b instanceof TimeOfDay y ->
                    (x.zone() == null) == (y.zone() == null)
                            ? Duration.ofNanos(nanos(x) - nanos(y))
                            : Nothing.NULL;
            case Amount x -> amounts(x, b, -1);
            default ->
                    isPoint(a) && (b instanceof Duration || b instanceof Months)
                            ? moved(a, b, -1)
                            : Nothing.NULL;
        };
    }

    private static Object between(Moment from, Moment to) {
        var duration = Values.between(from, to);
        return duration == null ? Nothing.NULL : duration;
    }

    private static long nanos(TimeOfDay time) {
        var offset = time.offset();
        return time.time().toNanoOfDay()
                - (offset == null ? 0 : offset.getTotalSeconds() * 1_000_000_000L);
    }

    private static Object times(Object a, Object b) {
        return switch (a) {
            case Duration x when b instanceof Decimal y -> scaled(x, y.big());
            case Decimal x when b instanceof Duration y -> scaled(y, x.big());
            case Months x when b instanceof Decimal y -> scaled(x, y.big());
            case Decimal x when b instanceof Months y -> scaled(y, x.big());
            case Amount x when b instanceof Decimal y -> amount(x.value().times(y), x.currency());
            case Decimal x when b instanceof Amount y -> amount(x.times(y.value()), y.currency());
            default -> Nothing.NULL;
        };
    }

    private static Object amount(Object value, String currency) {
        return value instanceof Decimal number ? new Amount(number, currency) : Nothing.NULL;
    }

    private static BigDecimal seconds(Duration duration) {
        return BigDecimal.valueOf(duration.toSeconds())
                .add(BigDecimal.valueOf(duration.toNanosPart(), 9));
    }

    /**
     * @throws ArithmeticException when it is longer than any duration
     */
    private static Duration scaled(Duration duration, BigDecimal by) {
        var seconds = seconds(duration).multiply(by, MathContext.DECIMAL128);
        if (seconds.precision() - (long) seconds.scale() > 18) {
            throw new ArithmeticException("Too long");
        }
        var whole = seconds.setScale(0, RoundingMode.FLOOR);
        var nanos = seconds.subtract(whole).movePointRight(9).setScale(0, RoundingMode.HALF_EVEN);
        return Duration.ofSeconds(whole.longValueExact(), nanos.longValueExact());
    }

    private static Object scaled(Months months, BigDecimal by) {
        var count = BigDecimal.valueOf(months.count()).multiply(by, MathContext.DECIMAL128);
        if (count.precision() - (long) count.scale() > 18) {
            return Nothing.NULL;
        }
        return new Months(count.setScale(0, RoundingMode.DOWN).longValueExact());
    }

    private static Object quotient(Object a, Object b) {
        return switch (a) {
            case Duration x when b instanceof Decimal y && y.signum() != 0 ->
                    scaledDown(x, y.big());
            case Duration x when b instanceof Duration y && !y.isZero() -> ratio(x, y);
            case Months x when b instanceof Decimal y && y.signum() != 0 ->
                    scaled(x, BigDecimal.ONE.divide(y.big(), PRECISE));
            case Months x when b instanceof Months y && y.count() != 0 ->
                    Decimal.of(x.count()).dividedBy(Decimal.of(y.count()));
            case Amount x when b instanceof Decimal y ->
                    amount(x.value().dividedBy(y), x.currency());
            case Amount x when b instanceof Amount y && x.currency().equals(y.currency()) ->
                    x.value().dividedBy(y.value());
            default -> Nothing.NULL;
        };
    }

    private static Duration scaledDown(Duration duration, BigDecimal by) {
        var seconds = seconds(duration).divide(by, MathContext.DECIMAL128);
        return scaled(Duration.ofSeconds(1), seconds);
    }

    private static Object ratio(Duration x, Duration y) {
        if (x.toNanosPart() == 0 && y.toNanosPart() == 0) {
            return Decimal.of(x.toSeconds()).dividedBy(Decimal.of(y.toSeconds()));
        }
        return Decimal.of(seconds(x)).dividedBy(Decimal.of(seconds(y)));
    }

    private static Object power(Decimal base, Decimal exponent, Evaluation run) {
        if (base.signum() == 0) {
            return exponent.signum() > 0
                    ? Decimal.ZERO
                    : exponent.signum() == 0 ? Decimal.ONE : noPower(run);
        }
        double size =
                Math.abs(
                        Math.log10(Math.abs(base.big().doubleValue()))
                                * exponent.big().doubleValue());
        if (Double.isNaN(size) || size > HIGHEST_EXPONENT) {
            return noPower(run);
        }
        if (exponent.isWhole() && exponent.big().abs().compareTo(BigDecimal.valueOf(999_999)) < 0) {
            int times = exponent.big().intValue();
            var whole = base.big().pow(Math.abs(times), PRECISE);
            var made = Decimal.tryOf(times < 0 ? BigDecimal.ONE.divide(whole, PRECISE) : whole);
            return made == null ? noPower(run) : made;
        }
        if (base.signum() < 0) {
            return noPower(run);
        }
        var made =
                Decimal.tryOf(
                        BigDecimalMath.pow(base.big(), exponent.big(), MathContext.DECIMAL128));
        return made == null ? noPower(run) : made;
    }

    private static Object noPower(Evaluation run) {
        run.note("This power has no result, or one too large to be written.");
        return Nothing.NULL;
    }

    static Object negated(Object value, Evaluation run) {
        return switch (value) {
            case Decimal number -> number.negated();
            case Duration duration -> duration.negated();
            case Months months -> new Months(-months.count());
            case Amount amount -> new Amount(amount.value().negated(), amount.currency());
            case Nothing nothing -> nothing;
            default -> {
                run.note("A minus goes before a number or a duration, not " + Values.kind(value));
                yield Nothing.NULL;
            }
        };
    }
}
