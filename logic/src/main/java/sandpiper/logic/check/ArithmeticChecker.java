package sandpiper.logic.check;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Span;
import sandpiper.logic.syntax.ArithmeticOperator;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.AmountOf;
import sandpiper.logic.type.LogicType.Simple;

/**
 * Types of sums and products: FEEL's table (DMN 1.5 §10.3.2.12), and the units of the model.
 *
 * <p>A percent is a share: 19 % counts as 0.19. Adding it to what it is a share of is nearly always
 * a mistake, and so it is refused with the way to write what was meant.
 */
final class ArithmeticChecker {
    private final Checking checking;

    ArithmeticChecker(Checking checking) {
        this.checking = checking;
    }

    Term of(ArithmeticOperator operator, Term left, Term right, Span span) {
        return new Term.Arithmetic(
                operator, left, right, typeOf(operator, left, right, span), span);
    }

    private LogicType typeOf(ArithmeticOperator operator, Term left, Term right, Span span) {
        var a = single(left.type());
        var b = single(right.type());
        if (a.isOpen() || b.isOpen()) {
            return openType(operator, a, b);
        }
        if (a.isNumeric() && b.isNumeric()) {
            return numeric(operator, left, a, right, b, span);
        }
        var type =
                switch (operator) {
                    case PLUS -> plus(a, b);
                    case MINUS -> minus(a, b);
                    case TIMES -> times(a, b);
                    case DIVIDE -> divided(a, b);
                    case POWER -> null;
                };
        if (type == null && NameResolver.isUncalled(left, right, checking)) {
            return Simple.ANY;
        }
        if (type == null) {
            refuse(operator, a, b, left, right, span);
            return Simple.ANY;
        }
        return type;
    }

    /** A list of one counts as its item; nothing else is reckoned with. */
    private static LogicType single(LogicType type) {
        return type instanceof LogicType.RecordOf ? Simple.TEXT : type;
    }

    /** What can be said when one side is not known. */
    private static LogicType openType(ArithmeticOperator operator, LogicType a, LogicType b) {
        var known = a.isOpen() ? b : a;
        boolean keeps = operator == ArithmeticOperator.PLUS || operator == ArithmeticOperator.MINUS;
        return keeps && known.isNumeric() && !(known instanceof AmountOf)
                ? Simple.NUMBER
                : Simple.ANY;
    }

    private LogicType numeric(
            ArithmeticOperator operator,
            Term left,
            LogicType a,
            Term right,
            LogicType b,
            Span span) {
        boolean adds = operator == ArithmeticOperator.PLUS || operator == ArithmeticOperator.MINUS;
        if (adds && (a == Simple.PERCENT) != (b == Simple.PERCENT)) {
            var other = a == Simple.PERCENT ? right : left;
            if (isLiteral(other)) {
                return Simple.NUMBER;
            }
            mixedUnits(operator, left, a, right, span);
            return other.type();
        }
        if (a instanceof AmountOf(var x) && b instanceof AmountOf(var y)) {
            return amounts(operator, x, y, span);
        }
        return switch (operator) {
            case PLUS, MINUS -> a instanceof AmountOf ? a : b instanceof AmountOf ? b : a;
            case TIMES -> a instanceof AmountOf ? a : b instanceof AmountOf ? b : Simple.NUMBER;
            case DIVIDE -> a instanceof AmountOf ? a : Simple.NUMBER;
            case POWER -> Simple.NUMBER;
        };
    }

    private static boolean isLiteral(Term term) {
        return term instanceof Term.Constant constant && constant.literal();
    }

    private void mixedUnits(
            ArithmeticOperator operator, Term left, LogicType a, Term right, Span span) {
        boolean percentFirst = a == Simple.PERCENT;
        var whole = TermText.of(percentFirst ? right : left);
        var share = TermText.of(percentFirst ? left : right);
        var suggestion =
                whole == null || share == null
                        ? null
                        : "%s * (1 %s %s)".formatted(whole, operator.symbol(), share);
        checking.error(
                LogicCode.MIXED_UNITS,
                span,
                "%s is a percent and counts as a share: 19 %% is 0.19. To %s it, write %s."
                        .formatted(
                                share == null ? "One side" : share,
                                operator == ArithmeticOperator.PLUS ? "add" : "take off",
                                suggestion == null
                                        ? "net * (1 %s vat)".formatted(operator.symbol())
                                        : suggestion),
                suggestion);
    }

    private LogicType amounts(
            ArithmeticOperator operator, @Nullable String x, @Nullable String y, Span span) {
        if (operator == ArithmeticOperator.DIVIDE) {
            return Simple.NUMBER;
        }
        if (operator == ArithmeticOperator.TIMES || operator == ArithmeticOperator.POWER) {
            checking.error(
                    LogicCode.MIXED_UNITS,
                    span,
                    "Two amounts cannot be multiplied; multiply an amount with a number.");
            return Simple.NUMBER;
        }
        if (x != null && y != null && !x.equals(y)) {
            checking.error(
                    LogicCode.MIXED_CURRENCIES,
                    span,
                    "One amount is in %s and the other in %s; they cannot be added."
                            .formatted(x, y));
        }
        return new AmountOf(x == null ? y : x);
    }

    private static @Nullable LogicType plus(LogicType a, LogicType b) {
        if (a.isTextual() && b.isTextual()) {
            return Simple.TEXT;
        }
        if (isDuration(a) && a == b) {
            return a;
        }
        if (isDuration(b) && takes(a, b)) {
            return a;
        }
        return isDuration(a) && takes(b, a) ? b : null;
    }

    private static @Nullable LogicType minus(LogicType a, LogicType b) {
        if (isDuration(b) && (a == b || takes(a, b))) {
            return a;
        }
        boolean days = isDay(a) && isDay(b);
        return days || (a == Simple.TIME && b == Simple.TIME) ? Simple.DURATION : null;
    }

    /** Whether a duration can be added to a point in time. */
    private static boolean takes(LogicType point, LogicType duration) {
        return isDay(point) || (point == Simple.TIME && duration == Simple.DURATION);
    }

    private static @Nullable LogicType times(LogicType a, LogicType b) {
        if (isDuration(a) && b.isNumeric()) {
            return a;
        }
        return isDuration(b) && a.isNumeric() ? b : null;
    }

    private static @Nullable LogicType divided(LogicType a, LogicType b) {
        if (isDuration(a) && b.isNumeric()) {
            return a;
        }
        return isDuration(a) && a == b ? Simple.NUMBER : null;
    }

    private static boolean isDay(LogicType type) {
        return type == Simple.DATE || type == Simple.DATE_TIME;
    }

    static boolean isDuration(LogicType type) {
        return type == Simple.DURATION || type == Simple.MONTHS;
    }

    private void refuse(
            ArithmeticOperator operator,
            LogicType a,
            LogicType b,
            Term left,
            Term right,
            Span span) {
        var message =
                "%s and %s cannot be %s."
                        .formatted(
                                capital(a.described()),
                                b.described(),
                                switch (operator) {
                                    case PLUS -> "added";
                                    case MINUS -> "subtracted";
                                    case TIMES -> "multiplied";
                                    case DIVIDE -> "divided";
                                    case POWER -> "raised to a power";
                                });
        var hint = "";
        @Nullable String suggestion = null;
        var leftText = TermText.of(left);
        var rightText = TermText.of(right);
        if ((isDay(a) || isDay(b)) && (a == Simple.NUMBER || b == Simple.NUMBER)) {
            hint =
                    " Days are a duration: write + duration(\"P1D\"), or * duration(\"P1D\") behind"
                            + " the number.";
            if (isDay(a) && leftText != null && rightText != null) {
                suggestion =
                        "%s %s %s * duration(\"P1D\")"
                                .formatted(leftText, operator.symbol(), rightText);
            }
        } else if (operator == ArithmeticOperator.PLUS && (a.isTextual() || b.isTextual())) {
            hint = " Turn the other into text with string(...).";
            if (leftText != null && rightText != null) {
                suggestion =
                        a.isTextual()
                                ? "%s + string(%s)".formatted(leftText, rightText)
                                : "string(%s) + %s".formatted(leftText, rightText);
            }
        } else if (a instanceof LogicType.ListOf || b instanceof LogicType.ListOf) {
            hint = " One is a list; bring it to one value, as with sum or count.";
        }
        checking.error(LogicCode.WRONG_TYPE, span, message + hint, suggestion);
    }

    static String capital(String text) {
        return Character.toUpperCase(text.charAt(0)) + text.substring(1);
    }
}
