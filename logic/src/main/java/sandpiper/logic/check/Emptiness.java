package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.term.Term;
import sandpiper.logic.term.Terms;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Nothing;

/**
 * Finds fields that may be empty where a check compares them. A check holds only when it is true,
 * so an empty field makes it fail; whether that is meant is for the consultant to say.
 */
final class Emptiness {
    private Emptiness() {}

    /** One warning for each field, with the check as it would read if empty were allowed. */
    static List<LogicProblem> warnings(Term check, String text) {
        var risky = new LinkedHashMap<String, Term>();
        look(check, new ArrayList<>(), risky);
        var problems = new ArrayList<LogicProblem>();
        for (Map.Entry<String, Term> one : risky.entrySet()) {
            problems.add(
                    LogicProblem.warning(
                            LogicCode.MAY_BE_EMPTY,
                            one.getValue().span(),
                            "%s may be empty, and then this check fails. Say what empty means: %s = null or ..., or make the field required."
                                    .formatted(one.getKey(), one.getKey()),
                            null));
        }
        return problems;
    }

    private static void look(Term term, List<Term> guarded, Map<String, Term> risky) {
        switch (term) {
            case Term.Logical logical -> {
                var inside = new ArrayList<>(guarded);
                for (var part : logical.parts()) {
                    look(part, inside, risky);
                    var guard = guardOf(part, logical.isAnd());
                    if (guard != null) {
                        inside.add(guard);
                    }
                }
            }
            case Term.If choice -> {
                look(choice.condition(), guarded, risky);
                var then = new ArrayList<>(guarded);
                var otherwise = new ArrayList<>(guarded);
                var filled = guardOf(choice.condition(), true);
                var empty = guardOf(choice.condition(), false);
                if (filled != null) {
                    then.add(filled);
                }
                if (empty != null) {
                    otherwise.add(empty);
                }
                look(choice.then(), then, risky);
                look(choice.otherwise(), otherwise, risky);
            }
            case Term.Compare compare -> {
                boolean asksForNull = isNull(compare.left()) || isNull(compare.right());
                boolean matters =
                        compare.operator().ordersValues() || compare.operator() == Operator.EQUAL;
                if (!asksForNull && matters) {
                    operand(compare.left(), guarded, risky);
                    operand(compare.right(), guarded, risky);
                }
            }
            case Term.Within within -> operand(within.value(), guarded, risky);
            case Term.Filter _, Term.Aggregate _, Term.Quantified _, Term.Find _ -> {
                // An item for which it cannot be worked out is left out, which is what is meant.
            }
            default -> Terms.children(term).forEach(child -> look(child, guarded, risky));
        }
    }

    private static void operand(Term term, List<Term> guarded, Map<String, Term> risky) {
        switch (term) {
            case Term.Read read -> {
                boolean known = guarded.stream().anyMatch(one -> Terms.same(one, read));
                if (known) {
                    return;
                }
                if (read.source() instanceof Term.Read inner) {
                    operand(inner, guarded, risky);
                }
                if (read.member().mayBeEmpty() && read.type() != Simple.BOOLEAN) {
                    var path = TermText.of(read);
                    if (path != null) {
                        risky.putIfAbsent(path, read);
                    }
                }
            }
            case Term.Arithmetic _, Term.Negate _, Term.Property _ ->
                    Terms.children(term).forEach(child -> operand(child, guarded, risky));
            case Term.Call call ->
                    call.arguments().forEach(argument -> operand(argument, guarded, risky));
            default -> {
                // nothing that is empty by itself
            }
        }
    }

    /**
     * The path that is known to have a value behind a part: {@code x != null and} behind an and,
     * {@code x = null or} behind an or.
     */
    private static @Nullable Term guardOf(Term part, boolean isAnd) {
        if (part instanceof Term.Compare(var operator, var left, var right, _)
                && operator == (isAnd ? Operator.NOT_EQUAL : Operator.EQUAL)) {
            if (isNull(right)) {
                return left;
            }
            return isNull(left) ? right : null;
        }
        return null;
    }

    private static boolean isNull(Term term) {
        return term instanceof Term.Constant constant
                && constant.literal()
                && constant.value() == Nothing.NULL;
    }
}
