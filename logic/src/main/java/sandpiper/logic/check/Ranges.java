package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;

/** Checks ranges, and what tests whether a value lies in them: {@code between} and {@code in}. */
final class Ranges {
    private final Checking checking;
    private final Expressions expressions;
    private final Comparisons comparisons;

    Ranges(Checking checking, Expressions expressions, Comparisons comparisons) {
        this.checking = checking;
        this.expressions = expressions;
        this.comparisons = comparisons;
    }

    Term between(Expr.Between between, Scope scope) {
        var value = expressions.term(between.value(), scope);
        var tested = checking.local("?", value.type(), between.value().span());
        var low =
                comparisons.of(
                        Operator.GREATER_OR_EQUAL,
                        value,
                        expressions.term(between.low(), scope),
                        between.span());
        var high =
                comparisons.of(
                        Operator.LESS_OR_EQUAL,
                        value,
                        expressions.term(between.high(), scope),
                        between.span());
        return new Term.Within(
                value,
                tested,
                List.of(
                        new Term.Logical(
                                true, List.of(on(tested, low), on(tested, high)), between.span())),
                between.span());
    }

    private static Term on(Term.Local tested, Term comparison) {
        return comparison instanceof Term.Compare(var operator, _, var right, var span)
                ? new Term.Compare(operator, tested, right, span)
                : comparison;
    }

    Term in(Expr.In in, Scope scope) {
        boolean standing = in.value() instanceof Expr.Name(var text, _) && text.equals("?");
        var value =
                standing && find(scope) == null
                        ? NameResolver.nothing(in.value().span())
                        : expressions.term(in.value(), scope);
        var tested = checking.local("?", value.type(), in.value().span());
        var inside = scope.inner();
        inside.put("?", tested);
        var tests = new ArrayList<Term>();
        for (var test : in.tests()) {
            tests.add(test(value, tested, test, inside));
        }
        return new Term.Within(value, tested, tests, in.span());
    }

    private static @Nullable Term find(Scope from) {
        for (Scope scope = from; scope != null; scope = scope.outer()) {
            if (scope.names().containsKey("?")) {
                return scope.names().get("?");
            }
        }
        return null;
    }

    private Term test(Term value, Term.Local tested, Expr test, Scope scope) {
        if (test instanceof Expr.UnaryTest(var operator, var operand, var span)) {
            return on(
                    tested,
                    comparisons.of(operator, value, expressions.term(operand, scope), span));
        }
        if (test instanceof Expr.ListLiteral(var items, var span) && !items.isEmpty()) {
            var parts = new ArrayList<Term>();
            for (var item : items) {
                parts.add(
                        item instanceof Expr.ListLiteral
                                ? new Term.Matches(
                                        tested, expressions.term(item, scope), item.span())
                                : test(value, tested, item, scope));
            }
            return parts.size() == 1 ? parts.getFirst() : new Term.Logical(false, parts, span);
        }
        if (test instanceof Expr.Range range) {
            checkRange(value, range, scope);
        }
        var term = comparisons.percentAsWritten(expressions.term(test, scope), value.type());
        boolean tests =
                sandpiper.logic.term.Terms.uses(term, tested)
                        || (term.type() == Simple.BOOLEAN
                                && value.type() != Simple.BOOLEAN
                                && !value.type().isOpen());
        if (tests) {
            return term;
        }
        checkTest(value, term);
        return new Term.Matches(tested, term, term.span());
    }

    private void checkRange(Term value, Expr.Range range, Scope scope) {
        // Each end is compared as if it stood alone, so that units and codes are looked at.
        var low = expressions.term(range.low(), scope);
        if (!value.type().isOpen() && !Comparisons.comparable(value.type(), low.type())) {
            checking.error(
                    LogicCode.WRONG_TYPE,
                    range.span(),
                    "%s cannot lie in a range of %s."
                            .formatted(
                                    ArithmeticChecker.capital(value.type().described()),
                                    low.type().described()));
        }
    }

    private void checkTest(Term value, Term test) {
        comparisons.checkChoice(value, test);
        var a = value.type();
        var b = test.type() instanceof LogicType.RangeOf(var of) ? of : test.type().itemType();
        if (!Comparisons.comparable(a.itemType(), b)) {
            checking.error(
                    LogicCode.WRONG_TYPE,
                    test.span(),
                    "%s is never %s."
                            .formatted(ArithmeticChecker.capital(a.described()), b.described()));
        }
    }

    Term range(Expr.Range range, Scope scope) {
        var low = expressions.term(range.low(), scope);
        var high = expressions.term(range.high(), scope);
        if (!Comparisons.comparable(low.type(), high.type())) {
            checking.error(
                    LogicCode.WRONG_TYPE,
                    range.span(),
                    "A range needs two ends of one kind, but these are %s and %s."
                            .formatted(low.type().described(), high.type().described()));
        }
        return new Term.RangeOf(
                low,
                range.lowIncluded(),
                high,
                range.highIncluded(),
                new LogicType.RangeOf(LogicType.common(low.type(), high.type())),
                range.span());
    }

    Term openRange(Expr.UnaryTest test, Scope scope) {
        var end = expressions.term(test.operand(), scope);
        var type = new LogicType.RangeOf(end.type());
        return switch (test.operator()) {
            case LESS -> new Term.RangeOf(null, false, end, false, type, test.span());
            case LESS_OR_EQUAL -> new Term.RangeOf(null, false, end, true, type, test.span());
            case GREATER -> new Term.RangeOf(end, false, null, false, type, test.span());
            case GREATER_OR_EQUAL -> new Term.RangeOf(end, true, null, false, type, test.span());
            case EQUAL -> new Term.RangeOf(end, true, end, true, type, test.span());
            case NOT_EQUAL -> {
                checking.error(
                        LogicCode.WRONG_TYPE,
                        test.span(),
                        "Everything but one value is no range; use != in a comparison.");
                yield NameResolver.nothing(test.span());
            }
        };
    }
}
