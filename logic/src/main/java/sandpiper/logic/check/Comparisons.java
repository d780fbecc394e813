package sandpiper.logic.check;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.term.Term;
import sandpiper.logic.term.Terms;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.ChoiceOf;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;

/** Whether two values can be compared, DMN 1.5 §10.3.2.13, and whether it can ever come true. */
final class Comparisons {
    private final Checking checking;

    Comparisons(Checking checking) {
        this.checking = checking;
    }

    Term of(Operator operator, Term left, Term right, Span span) {
        var a = percentAsWritten(left, right.type());
        var b = percentAsWritten(right, left.type());
        check(operator, a, b, span);
        return new Term.Compare(operator, a, b, span);
    }

    /** A number written beside a percent is meant as it is written: 19 is 19 %. */
    Term percentAsWritten(Term term, LogicType other) {
        if (other != Simple.PERCENT
                || !(term instanceof Term.Constant constant)
                || !constant.literal()
                || !(constant.value() instanceof Decimal number)) {
            return term;
        }
        if (number.signum() > 0 && number.compareTo(Decimal.ONE) < 0) {
            checking.warn(
                    LogicCode.MIXED_UNITS,
                    term.span(),
                    "%s means %s %% here; write %s for %s %%."
                            .formatted(number, number, number.shifted(2), number.shifted(2)),
                    number.shifted(2).toString());
        }
        return new Term.Constant(number.shifted(-2), Simple.PERCENT, true, term.span());
    }

    private void check(Operator operator, Term left, Term right, Span span) {
        if (NameResolver.isUncalled(left, right, checking)) {
            return;
        }
        var a = left.type();
        var b = right.type();
        if (isNull(left) || isNull(right)) {
            var other = isNull(left) ? right : left;
            if (operator == Operator.EQUAL
                    && other instanceof Term.Read(Term.Local(int slot, _, _, _), var member, _)
                    && slot == NameContext.THIS
                    && !member.mayBeEmpty()
                    && member.fixed() == null
                    && !(isNull(left) && isNull(right))) {
                checking.warn(
                        LogicCode.NEVER_TRUE,
                        span,
                        "%s always has a value, so this is never true.".formatted(member.name()),
                        null);
            }
            if (operator.ordersValues()) {
                var field = TermText.of(isNull(left) ? right : left);
                checking.error(
                        LogicCode.NEVER_TRUE,
                        span,
                        "Nothing is %s null; use = null or != null to ask whether %s is empty."
                                .formatted(operator.symbol(), field == null ? "it" : field));
            }
            return;
        }
        if (a.isOpen() || b.isOpen()) {
            return;
        }
        if (!comparable(a, b)) {
            checking.error(
                    LogicCode.WRONG_TYPE,
                    span,
                    "%s cannot be compared with %s; this is never true."
                            .formatted(
                                    ArithmeticChecker.capital(described(left)),
                                    endingWell(described(right))));
            return;
        }
        if (isShareAndAmount(a, b) || isShareAndAmount(b, a)) {
            checking.error(
                    LogicCode.MIXED_UNITS,
                    span,
                    "%s is compared with %s; an amount and a percent have no measure in common."
                            .formatted(
                                    ArithmeticChecker.capital(described(left)),
                                    endingWell(described(right))));
            return;
        }
        if (a instanceof ChoiceOf(var codes)
                && b instanceof ChoiceOf(var others)
                && java.util.Collections.disjoint(codes, others)) {
            checking.error(
                    LogicCode.NEVER_TRUE,
                    span,
                    "%s and %s have no code in common; this is never true."
                            .formatted(
                                    ArithmeticChecker.capital(described(left)),
                                    endingWell(described(right))));
            return;
        }
        if (operator.ordersValues() && (!a.isOrdered() || !b.isOrdered())) {
            checking.error(
                    LogicCode.WRONG_TYPE,
                    span,
                    a == Simple.BOOLEAN
                            ? "True and false have no order; use = or !=."
                            : "%s has no order; use = or !=."
                                    .formatted(ArithmeticChecker.capital(a.described())));
        }
        checkChoice(left, right);
        checkChoice(right, left);
        checkFixed(operator, left, right, span);
    }

    private static boolean isShareAndAmount(LogicType a, LogicType b) {
        return a == Simple.PERCENT && b instanceof LogicType.AmountOf;
    }

    private static boolean isNull(Term term) {
        return term instanceof Term.Constant constant
                && constant.literal()
                && constant.value() == Nothing.NULL;
    }

    private static String described(Term term) {
        var text = TermText.of(term);
        return text == null || term instanceof Term.Constant
                ? term.type().described()
                : text + ", which is " + term.type().described() + ",";
    }

    /** Before a semicolon there is no comma. */
    private static String endingWell(String text) {
        return text.endsWith(",") ? text.substring(0, text.length() - 1) : text;
    }

    static boolean comparable(LogicType a, LogicType b) {
        if (a.isOpen() || b.isOpen() || a.equals(b)) {
            return true;
        }
        if (a instanceof RecordOf(var x) && b instanceof RecordOf(var y)) {
            return x.name().equals(y.name());
        }
        boolean textual =
                (a.isTextual() || a instanceof RecordOf)
                        && (b.isTextual() || b instanceof RecordOf);
        boolean days =
                (a == Simple.DATE || a == Simple.DATE_TIME)
                        && (b == Simple.DATE || b == Simple.DATE_TIME);
        return textual
                || days
                || (a.isNumeric() && b.isNumeric())
                || (a instanceof LogicType.ListOf(var x)
                        && b instanceof LogicType.ListOf(var y)
                        && comparable(x, y))
                || (a instanceof LogicType.RangeOf && b instanceof LogicType.RangeOf)
                || (a instanceof LogicType.ContextOf && b instanceof LogicType.ContextOf)
                || (a instanceof LogicType.FunctionOf && b instanceof LogicType.FunctionOf);
    }

    /** A code that is not in the list is never true, and nearly always misspelt. */
    void checkChoice(Term choice, Term other) {
        if (choice.type() instanceof ChoiceOf(List<String> codes)
                && other instanceof Term.Constant constant
                && constant.value() instanceof String code
                && !codes.contains(code)) {
            var name = TermText.of(choice);
            @Nullable String nearest = Nearest.to(code, codes).orElse(null);
            checking.error(
                    LogicCode.UNKNOWN_CHOICE,
                    other.span(),
                    "%s is never %s; it is %s."
                            .formatted(
                                    name == null ? "This" : name,
                                    Quoted.of(code),
                                    choice.type().described()),
                    nearest == null ? null : '"' + nearest + '"');
        }
    }

    private void checkFixed(Operator operator, Term left, Term right, Span span) {
        var path = TermText.of(left);
        if (left instanceof Term.Constant && right instanceof Term.Constant) {
            checking.warn(
                    LogicCode.NEVER_TRUE,
                    span,
                    "This compares two fixed values and always comes to the same.",
                    null);
        } else if (path != null && Terms.same(left, right)) {
            checking.warn(
                    LogicCode.NEVER_TRUE,
                    span,
                    "This compares %s with itself, which is %s."
                            .formatted(
                                    path,
                                    operator == Operator.NOT_EQUAL
                                                    || operator == Operator.LESS
                                                    || operator == Operator.GREATER
                                            ? "never true"
                                            : "true whenever it is not empty"),
                    null);
        }
    }
}
