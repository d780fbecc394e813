package sandpiper.logic.function;

import static sandpiper.logic.function.FunctionParameter.taking;

import ch.obermuhlner.math.big.BigDecimalMath;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.time.Duration;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Months;
import sandpiper.logic.value.Nothing;

/** DMN 1.5 §10.3.4.5. */
final class NumberFunctions {
    private static final String CHAPTER = "Numbers";

    /** Beyond this e to the power of it has no decimal128. */
    private static final BigDecimal HIGHEST_POWER = BigDecimal.valueOf(14_149);

    static final List<Builtin> ALL =
            List.of(
                    Builtin.of(
                                    "decimal",
                                    CHAPTER,
                                    "The number rounded to some decimal places, half to even.")
                            .form(
                                    NumberFunctions::sameType,
                                    arguments -> rounded(arguments, RoundingMode.HALF_EVEN),
                                    taking("n", ParameterKind.NUMBER),
                                    taking("scale", ParameterKind.NUMBER))
                            .example("decimal(2.5, 0)", "2")
                            .example("decimal(1/3, 2)", "0.33"),
                    rounding(
                                    "floor",
                                    "The next lower number with some decimal places, none when not"
                                            + " given.",
                                    RoundingMode.FLOOR,
                                    true)
                            .example("floor(1.5)", "1")
                            .example("floor(-1.56, 1)", "-1.6"),
                    rounding(
                                    "ceiling",
                                    "The next higher number with some decimal places, none when not"
                                            + " given.",
                                    RoundingMode.CEILING,
                                    true)
                            .example("ceiling(1.5)", "2"),
                    rounding("round up", "The number rounded away from 0.", RoundingMode.UP, false)
                            .example("round up(5.51, 1)", "5.6"),
                    rounding(
                                    "round down",
                                    "The number rounded towards 0.",
                                    RoundingMode.DOWN,
                                    false)
                            .example("round down(5.59, 1)", "5.5"),
                    rounding(
                                    "round half up",
                                    "The number rounded to the nearest, half away from 0.",
                                    RoundingMode.HALF_UP,
                                    false)
                            .example("round half up(5.55, 1)", "5.6"),
                    rounding(
                                    "round half down",
                                    "The number rounded to the nearest, half towards 0.",
                                    RoundingMode.HALF_DOWN,
                                    false)
                            .example("round half down(5.55, 1)", "5.5"),
                    Builtin.of("abs", CHAPTER, "The number or duration without its sign.")
                            .form(
                                    NumberFunctions::sameType,
                                    arguments -> {
                                        var n = arguments.number(0);
                                        return n.signum() < 0 ? n.negated() : n;
                                    },
                                    taking("n", ParameterKind.NUMBER))
                            .form(
                                    NumberFunctions::sameType,
                                    NumberFunctions::absoluteDuration,
                                    taking("n", ParameterKind.ANY_DURATION))
                            .example("abs(-10)", "10")
                            .example("abs(@\"-PT5H\")", "PT5H"),
                    Builtin.of(
                                    "modulo",
                                    CHAPTER,
                                    "What is left of a division, with the sign of the divisor.")
                            .form(
                                    Simple.NUMBER,
                                    NumberFunctions::modulo,
                                    taking("dividend", ParameterKind.NUMBER),
                                    taking("divisor", ParameterKind.NUMBER))
                            .example("modulo(12, 5)", "2")
                            .example("modulo(-12, 5)", "3"),
                    Builtin.of("sqrt", CHAPTER, "The square root.")
                            .form(
                                    Simple.NUMBER,
                                    NumberFunctions::root,
                                    taking("number", ParameterKind.NUMBER))
                            .example("sqrt(16)", "4"),
                    Builtin.of("log", CHAPTER, "The natural logarithm.")
                            .form(
                                    Simple.NUMBER,
                                    NumberFunctions::logarithm,
                                    taking("number", ParameterKind.NUMBER))
                            .example("decimal(log(10), 8)", "2.30258509"),
                    Builtin.of("exp", CHAPTER, "Euler's number to the power of the argument.")
                            .form(
                                    Simple.NUMBER,
                                    NumberFunctions::exponential,
                                    taking("number", ParameterKind.NUMBER))
                            .example("decimal(exp(5), 8)", "148.4131591"),
                    Builtin.of("odd", CHAPTER, "Whether a whole number is odd.")
                            .form(
                                    Simple.BOOLEAN,
                                    arguments -> parity(arguments, BigDecimal.ONE),
                                    taking("number", ParameterKind.NUMBER))
                            .example("odd(5)", "true"),
                    Builtin.of("even", CHAPTER, "Whether a whole number is even.")
                            .form(
                                    Simple.BOOLEAN,
                                    arguments -> parity(arguments, BigDecimal.ZERO),
                                    taking("number", ParameterKind.NUMBER))
                            .example("even(5)", "false"));

    private NumberFunctions() {}

    private static Builtin rounding(
            String name, String describe, RoundingMode mode, boolean optional) {
        var scale = taking("scale", ParameterKind.NUMBER);
        return Builtin.of(name, CHAPTER, describe)
                .form(
                        NumberFunctions::sameType,
                        arguments -> rounded(arguments, mode),
                        taking("n", ParameterKind.NUMBER),
                        optional ? scale.orAbsent() : scale);
    }

    private static LogicType sameType(List<LogicType> arguments) {
        return arguments.isEmpty() ? Simple.NUMBER : arguments.getFirst();
    }

    private static Object rounded(CallArguments arguments, RoundingMode mode) {
        int scale = 0;
        if (arguments.has(1)) {
            var wanted = arguments.number(1).big().setScale(0, RoundingMode.DOWN);
            if (wanted.abs().compareTo(BigDecimal.valueOf(6_176)) > 0
                    || wanted.compareTo(BigDecimal.valueOf(-6_111)) < 0) {
                return arguments.fail("The scale must be -6,111 to 6,176.");
            }
            scale = wanted.intValue();
        }
        var big = arguments.number(0).big();
        // Digits that are not there need not be written out.
        return scale >= big.scale() ? arguments.number(0) : result(big.setScale(scale, mode));
    }

    private static Object result(@Nullable BigDecimal value) {
        var made = value == null ? null : Decimal.tryOf(value);
        return made == null ? Nothing.NULL : made;
    }

    private static Object absoluteDuration(CallArguments arguments) {
        return arguments.any(0) instanceof Months months
                ? new Months(Math.abs(months.count()))
                : ((Duration) arguments.any(0)).abs();
    }

    private static Object modulo(CallArguments arguments) {
        var dividend = arguments.number(0).big();
        var divisor = arguments.number(1).big();
        if (divisor.signum() == 0) {
            return arguments.fail("modulo: the divisor is 0.");
        }
        if (Math.abs(
                        (long) dividend.precision()
                                - dividend.scale()
                                - divisor.precision()
                                + divisor.scale())
                > 1_000) {
            return arguments.fail("modulo: the numbers are too far apart.");
        }
        var rest = dividend.remainder(divisor);
        return result(
                rest.signum() != 0 && rest.signum() != divisor.signum() ? rest.add(divisor) : rest);
    }

    private static Object root(CallArguments arguments) {
        var n = arguments.number(0).big();
        return n.signum() < 0
                ? arguments.fail("sqrt: the number is below 0.")
                : result(n.sqrt(MathContext.DECIMAL128));
    }

    private static Object logarithm(CallArguments arguments) {
        var n = arguments.number(0).big();
        return n.signum() <= 0
                ? arguments.fail("log: the number must be above 0.")
                : result(BigDecimalMath.log(n, MathContext.DECIMAL128));
    }

    private static Object exponential(CallArguments arguments) {
        var n = arguments.number(0).big();
        if (n.compareTo(HIGHEST_POWER) > 0) {
            return arguments.fail("exp: the result would be too large.");
        }
        return n.compareTo(HIGHEST_POWER.negate()) < 0
                ? Decimal.ZERO
                : result(BigDecimalMath.exp(n, MathContext.DECIMAL128));
    }

    private static Object parity(CallArguments arguments, BigDecimal wanted) {
        var n = arguments.number(0);
        if (!n.isWhole()) {
            return arguments.fail("The number is not whole.");
        }
        var big = n.big();
        if (big.precision() - (long) big.scale() > 40) {
            return wanted.signum() == 0;
        }
        return big.toBigInteger().testBit(0) == (wanted.signum() != 0);
    }
}
