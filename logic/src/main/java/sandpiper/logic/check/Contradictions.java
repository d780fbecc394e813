package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.term.Term;
import sandpiper.logic.term.Terms;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.Values;

/** Finds conditions that can never all be true: two values for one field, bounds that cross. */
final class Contradictions {
    private final Checking checking;

    Contradictions(Checking checking) {
        this.checking = checking;
    }

    /** What is asked of one path. */
    private record Demand(Term path, Operator operator, Object value, Term at) {}

    void look(Term term) {
        if (term instanceof Term.Logical(boolean isAnd, var parts, _) && isAnd) {
            lookForOpposites(parts);
            var demands = new ArrayList<Demand>();
            parts.forEach(part -> collect(part, demands));
            for (int i = 1; i < demands.size(); i++) {
                for (int j = 0; j < i; j++) {
                    if (clash(demands.get(j), demands.get(i))) {
                        report(demands.get(j), demands.get(i));
                        return;
                    }
                }
            }
        }
        Terms.children(term).forEach(this::look);
    }

    /** A condition beside its own negation. */
    private void lookForOpposites(List<Term> parts) {
        for (var part : parts) {
            var denied = denied(part);
            if (denied != null && parts.stream().anyMatch(one -> alike(one, denied))) {
                checking.warn(
                        LogicCode.NEVER_TRUE,
                        part.span(),
                        "This is never true together with the same without not.",
                        null);
                return;
            }
        }
    }

    private static @Nullable Term denied(Term term) {
        return term instanceof Term.Call call
                        && call.function().name().equals("not")
                        && call.arguments().size() == 1
                ? call.arguments().getFirst()
                : null;
    }

    private static void collect(Term part, List<Demand> into) {
        if (part instanceof Term.Compare(var operator, var left, var right, _)) {
            if (right instanceof Term.Constant constant && TermText.of(left) != null) {
                into.add(new Demand(left, operator, constant.value(), part));
            } else if (left instanceof Term.Constant constant && TermText.of(right) != null) {
                into.add(new Demand(right, operator.flipped(), constant.value(), part));
            }
        }
    }

    private static boolean clash(Demand a, Demand b) {
        if (!Terms.same(a.path(), b.path())) {
            return false;
        }
        if (a.operator() == Operator.EQUAL) {
            return !allows(b, a.value());
        }
        if (b.operator() == Operator.EQUAL) {
            return !allows(a, b.value());
        }
        return crosses(a, b) || crosses(b, a);
    }

    /** Whether a demand lets a value pass; what cannot be known passes. */
    private static boolean allows(Demand demand, Object value) {
        if (value == Nothing.NULL) {
            return demand.operator() == Operator.EQUAL
                    ? demand.value() == Nothing.NULL
                    : demand.operator() == Operator.NOT_EQUAL && demand.value() != Nothing.NULL;
        }
        if (demand.value() == Nothing.NULL) {
            return demand.operator() == Operator.NOT_EQUAL;
        }
        @Nullable Integer order = Values.order(value, demand.value());
        if (order == null) {
            return true;
        }
        return switch (demand.operator()) {
            case EQUAL -> order == 0;
            case NOT_EQUAL -> order != 0;
            case LESS -> order < 0;
            case LESS_OR_EQUAL -> order <= 0;
            case GREATER -> order > 0;
            case GREATER_OR_EQUAL -> order >= 0;
        };
    }

    private static boolean crosses(Demand low, Demand high) {
        boolean bounds =
                (low.operator() == Operator.GREATER || low.operator() == Operator.GREATER_OR_EQUAL)
                        && (high.operator() == Operator.LESS
                                || high.operator() == Operator.LESS_OR_EQUAL);
        if (!bounds) {
            return false;
        }
        @Nullable Integer order = Values.order(low.value(), high.value());
        boolean both =
                low.operator() == Operator.GREATER_OR_EQUAL
                        && high.operator() == Operator.LESS_OR_EQUAL;
        return order != null && (order > 0 || (order == 0 && !both));
    }

    private void report(Demand first, Demand second) {
        checking.warn(
                LogicCode.NEVER_TRUE,
                second.at().span(),
                "This is never true together with what is asked of %s before it."
                        .formatted(TermText.of(first.path())),
                null);
    }

    /** Whether a condition can never be reached behind another: whenever it holds, so did that. */
    static boolean isCovered(Term before, Term now) {
        if (alike(before, now)) {
            return true;
        }
        var first = new ArrayList<Demand>();
        var second = new ArrayList<Demand>();
        collect(before, first);
        var parts =
                now instanceof Term.Logical(boolean isAnd, var all, _) && isAnd
                        ? all
                        : List.of(now);
        parts.forEach(part -> collect(part, second));
        return first.size() == 1
                && second.stream().anyMatch(demand -> implies(demand, first.getFirst()));
    }

    /** Whether every value that meets one demand meets the other. */
    private static boolean implies(Demand a, Demand b) {
        if (!Terms.same(a.path(), b.path())) {
            return false;
        }
        if (a.operator() == Operator.EQUAL) {
            return a.value() != Nothing.NULL && b.value() != Nothing.NULL && isMet(b, a.value());
        }
        @Nullable Integer order = Values.order(a.value(), b.value());
        if (order == null) {
            return false;
        }
        return switch (a.operator()) {
            case GREATER ->
                    (b.operator() == Operator.GREATER || b.operator() == Operator.GREATER_OR_EQUAL)
                            && order >= 0;
            case GREATER_OR_EQUAL ->
                    (b.operator() == Operator.GREATER && order > 0)
                            || (b.operator() == Operator.GREATER_OR_EQUAL && order >= 0);
            case LESS ->
                    (b.operator() == Operator.LESS || b.operator() == Operator.LESS_OR_EQUAL)
                            && order <= 0;
            case LESS_OR_EQUAL ->
                    (b.operator() == Operator.LESS && order < 0)
                            || (b.operator() == Operator.LESS_OR_EQUAL && order <= 0);
            case EQUAL, NOT_EQUAL -> false;
        };
    }

    private static boolean isMet(Demand demand, Object value) {
        return Values.order(value, demand.value()) != null && allows(demand, value);
    }

    /** Whether two conditions ask the same. */
    static boolean alike(Term a, Term b) {
        if (a instanceof Term.Compare x && b instanceof Term.Compare y) {
            return x.operator() == y.operator()
                    && Terms.same(x.left(), y.left())
                    && Terms.same(x.right(), y.right());
        }
        return Terms.same(a, b) && !(a instanceof Term.Constant);
    }
}
