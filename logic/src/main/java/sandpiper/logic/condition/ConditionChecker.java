package sandpiper.logic.condition;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Nearest;
import sandpiper.logic.Problem;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.syntax.Parser;
import sandpiper.logic.type.LogicType.ChoiceOf;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.type.RecordType;

/** Reads and checks conditions over one record type. */
public final class ConditionChecker {
    private static final Set<String> FUNCTIONS =
            Set.of("contains", "starts with", "ends with", "not");

    private final RecordType record;
    private final List<Problem> problems = new ArrayList<>();
    private final Constants constants;

    private ConditionChecker(RecordType record, Clock clock) {
        this.record = record;
        this.constants = new Constants(clock, problems);
    }

    /**
     * Reads and checks one condition. Never throws on bad text; all problems come back at once.
     *
     * @param clock gives {@code today()} and {@code now()}, and the zone of dates and times written
     *     without one
     */
    public static Checked check(String text, RecordType record, Clock clock) {
        var parsed = Parser.parse(text);
        var checker = new ConditionChecker(record, clock);
        checker.problems.addAll(parsed.problems());
        var condition = checker.condition(parsed.expr());
        return condition == null || !checker.problems.isEmpty()
                ? new Checked.Rejected(checker.problems)
                : new Checked.Accepted(condition);
    }

    private @Nullable Condition condition(Expr expr) {
        return switch (expr) {
            case Expr.Logical logical -> logical(logical);
            case Expr.Comparison comparison -> comparison(comparison);
            case Expr.Between between -> between(between);
            case Expr.In in -> in(in);
            case Expr.Call call -> call(call);
            case Expr.Name _, Expr.Path _ -> truthOf(expr);
            case Expr.Unreadable _ -> null;
            default ->
                    problem(
                            LogicCode.NOT_A_CONDITION,
                            expr.span(),
                            "This is a value, not a condition; compare a field with it, as in state"
                                    + " = \"Open\".");
        };
    }

    private @Nullable Condition logical(Expr.Logical logical) {
        var parts = logical.parts().stream().map(this::condition).toList();
        if (parts.stream().anyMatch(Objects::isNull)) {
            return null;
        }
        return logical.isAnd() ? new Condition.All(parts) : new Condition.Any(parts);
    }

    private @Nullable Condition truthOf(Expr expr) {
        var field = field(expr);
        if (field == null) {
            return null;
        }
        if (field.type() != Simple.BOOLEAN) {
            return problem(
                    LogicCode.NOT_A_CONDITION,
                    expr.span(),
                    "%s is %s, not true or false; compare it with something."
                            .formatted(field.written(), field.type().described()));
        }
        return new Condition.Compare(
                field, Operator.EQUAL, new Operand.Value(true, Simple.BOOLEAN));
    }

    private @Nullable Condition comparison(Expr.Comparison comparison) {
        return compare(
                comparison.left(), comparison.operator(), comparison.right(), comparison.span());
    }

    private @Nullable Condition compare(
            Expr leftExpr, Operator operator, Expr rightExpr, Span span) {
        if (leftExpr instanceof Expr.NullLiteral && !(rightExpr instanceof Expr.NullLiteral)) {
            return compare(rightExpr, operator.flipped(), leftExpr, span);
        }
        var left = operand(leftExpr);
        if (rightExpr instanceof Expr.NullLiteral && left instanceof Operand.Field field) {
            return emptiness(field, operator, span);
        }
        var right = operand(rightExpr);
        if (left == null || right == null) {
            return null;
        }
        if (left instanceof Operand.Field field) {
            return comparable(field, operator, right, span);
        }
        if (right instanceof Operand.Field field) {
            return comparable(field, operator.flipped(), left, span);
        }
        return problem(
                LogicCode.NO_FIELD,
                span,
                "This compares two fixed values; one side must be a field.");
    }

    private @Nullable Condition emptiness(Operand.Field field, Operator operator, Span span) {
        return switch (operator) {
            case EQUAL -> new Condition.Empty(field);
            case NOT_EQUAL -> new Condition.Not(new Condition.Empty(field));
            default ->
                    problem(
                            LogicCode.NEVER_TRUE,
                            span,
                            "Nothing is %s null; use = null or != null to ask whether %s is empty."
                                    .formatted(operator.symbol(), field.written()));
        };
    }

    private @Nullable Condition comparable(
            Operand.Field left, Operator operator, Operand right, Span span) {
        var from = keyOf(left);
        var to = right instanceof Operand.Field field ? keyOf(field) : right;
        if (from.type() instanceof ChoiceOf choice && to instanceof Operand.Value value) {
            return choice(from, choice, operator, value, span);
        }
        boolean alike =
                from.type().equals(to.type()) || (from.type().isTextual() && to.type().isTextual());
        if (!alike || from.type() instanceof RecordOf) {
            return problem(
                    LogicCode.WRONG_TYPE,
                    span,
                    "%s is %s and cannot be compared with %s."
                            .formatted(left.written(), from.type().described(), describe(to)));
        }
        if (operator.ordersValues() && from.type() == Simple.BOOLEAN) {
            return problem(
                    LogicCode.WRONG_TYPE, span, "True and false have no order; use = or !=.");
        }
        return new Condition.Compare(from, operator, to);
    }

    private @Nullable Condition choice(
            Operand.Field field,
            ChoiceOf choice,
            Operator operator,
            Operand.Value value,
            Span span) {
        if (!(value.value() instanceof String code)) {
            return problem(
                    LogicCode.WRONG_TYPE,
                    span,
                    "%s is %s and cannot be compared with %s."
                            .formatted(
                                    field.written(), choice.described(), value.type().described()));
        }
        if (!choice.codes().contains(code)) {
            problems.add(
                    new Problem(
                            LogicCode.UNKNOWN_CHOICE,
                            span,
                            "%s is never %s; it is %s."
                                    .formatted(
                                            field.written(), Quoted.of(code), choice.described()),
                            Nearest.to(code, choice.codes()).orElse(null)));
            return null;
        }
        return new Condition.Compare(field, operator, value);
    }

    /** A reference compared with something stands for the key of the record it points to. */
    private static Operand.Field keyOf(Operand.Field field) {
        if (!(field.type() instanceof RecordOf(var target))) {
            return field;
        }
        return target.keyMember()
                .map(key -> {
                    var path = new ArrayList<>(field.path());
                    path.add(key);
                    return new Operand.Field(path, target.member(key).orElseThrow(), field.span());
                })
                .orElse(field);
    }

    private static String describe(Operand operand) {
        return switch (operand) {
            case Operand.Field field ->
                    "%s, which is %s".formatted(field.written(), field.type().described());
            case Operand.Value value -> value.type().described();
        };
    }

    private @Nullable Condition between(Expr.Between between) {
        var low =
                compare(between.value(), Operator.GREATER_OR_EQUAL, between.low(), between.span());
        var high = compare(between.value(), Operator.LESS_OR_EQUAL, between.high(), between.span());
        return low == null || high == null ? null : new Condition.All(List.of(low, high));
    }

    private @Nullable Condition in(Expr.In in) {
        var tests = new ArrayList<Condition>();
        for (var test : in.tests()) {
            var items = test instanceof Expr.ListLiteral list ? list.items() : List.of(test);
            for (var item : items) {
                var checked = test(in.value(), item);
                if (checked == null) {
                    return null;
                }
                tests.add(checked);
            }
        }
        if (tests.isEmpty()) {
            return problem(LogicCode.NEVER_TRUE, in.span(), "Nothing is in an empty list.");
        }
        return tests.size() == 1 ? tests.getFirst() : new Condition.Any(tests);
    }

    private @Nullable Condition test(Expr value, Expr test) {
        return switch (test) {
            case Expr.UnaryTest unary ->
                    compare(value, unary.operator(), unary.operand(), unary.span());
            case Expr.Range range -> {
                var low =
                        compare(
                                value,
                                range.lowIncluded() ? Operator.GREATER_OR_EQUAL : Operator.GREATER,
                                range.low(),
                                range.span());
                var high =
                        compare(
                                value,
                                range.highIncluded() ? Operator.LESS_OR_EQUAL : Operator.LESS,
                                range.high(),
                                range.span());
                yield low == null || high == null ? null : new Condition.All(List.of(low, high));
            }
            default -> compare(value, Operator.EQUAL, test, test.span());
        };
    }

    private @Nullable Condition call(Expr.Call call) {
        return switch (call.function()) {
            case "not" -> {
                if (call.arguments().size() != 1) {
                    yield problem(
                            LogicCode.WRONG_ARGUMENTS, call.span(), "not takes one condition.");
                }
                var inner = condition(call.arguments().getFirst());
                yield inner == null ? null : new Condition.Not(inner);
            }
            case "contains" -> textMatch(call, Condition.TextMatch.Place.ANYWHERE);
            case "starts with" -> textMatch(call, Condition.TextMatch.Place.START);
            case "ends with" -> textMatch(call, Condition.TextMatch.Place.END);
            default -> {
                if (constants.of(call).isPresent()) {
                    yield problem(
                            LogicCode.NOT_A_CONDITION,
                            call.span(),
                            "This is a value, not a condition; compare a field with it.");
                }
                if (!Constants.FUNCTIONS.contains(call.function())) {
                    constants.unknownFunction(call, FUNCTIONS);
                }
                yield null;
            }
        };
    }

    private @Nullable Condition textMatch(Expr.Call call, Condition.TextMatch.Place place) {
        if (call.arguments().size() != 2
                || !(call.arguments().get(1) instanceof Expr.TextLiteral text)) {
            return problem(
                    LogicCode.WRONG_ARGUMENTS,
                    call.span(),
                    "%s takes a field and a text, as in %s(name, \"gull\")."
                            .formatted(call.function(), call.function()));
        }
        var written = field(call.arguments().getFirst());
        if (written == null) {
            return null;
        }
        var field = keyOf(written);
        if (!field.type().isTextual()) {
            return problem(
                    LogicCode.WRONG_TYPE,
                    field.span(),
                    "%s looks into text, but %s is %s."
                            .formatted(call.function(), field.written(), field.type().described()));
        }
        return new Condition.TextMatch(field, place, text.value());
    }

    private @Nullable Operand operand(Expr expr) {
        if (expr instanceof Expr.Name || expr instanceof Expr.Path) {
            return field(expr);
        }
        int before = problems.size();
        var constant = constants.of(expr);
        if (constant.isEmpty() && problems.size() == before && !(expr instanceof Expr.Unreadable)) {
            if (expr instanceof Expr.Call call && !FUNCTIONS.contains(call.function())) {
                constants.unknownFunction(call, FUNCTIONS);
            } else {
                problem(LogicCode.WRONG_TYPE, expr.span(), "Here a field or a value is expected.");
            }
        }
        return constant.orElse(null);
    }

    private Operand.@Nullable Field field(Expr expr) {
        var names = new ArrayList<String>();
        var spans = new ArrayList<Span>();
        if (!collect(expr, names, spans)) {
            problem(LogicCode.WRONG_TYPE, expr.span(), "Here the name of a field is expected.");
            return null;
        }
        RecordType at = record;
        for (int i = 0; ; i++) {
            var type = at.member(names.get(i)).orElse(null);
            if (type == null) {
                unknown(at, names.get(i), spans.get(i), i == 0);
                return null;
            }
            if (i == names.size() - 1) {
                return new Operand.Field(names, type, expr.span());
            }
            if (!(type instanceof RecordOf(var next))) {
                problem(
                        LogicCode.UNKNOWN_MEMBER,
                        spans.get(i + 1),
                        "%s is %s and has no fields of its own."
                                .formatted(names.get(i), type.described()));
                return null;
            }
            at = next;
        }
    }

    private static boolean collect(Expr expr, List<String> names, List<Span> spans) {
        return switch (expr) {
            case Expr.Name name -> names.add(name.text()) && spans.add(name.span());
            case Expr.Path path ->
                    collect(path.source(), names, spans)
                            && names.add(path.member())
                            && spans.add(path.memberSpan());
            default -> false;
        };
    }

    private void unknown(RecordType in, String name, Span span, boolean first) {
        var nearest = Nearest.to(name, in.memberNames()).orElse(null);
        var message = "%s has no field %s.".formatted(in.name(), Quoted.of(name));
        if (nearest == null) {
            message += " It has " + String.join(", ", in.sortedMemberNames()) + ".";
        }
        problems.add(
                new Problem(
                        first ? LogicCode.UNKNOWN_NAME : LogicCode.UNKNOWN_MEMBER,
                        span,
                        message,
                        nearest));
    }

    private @Nullable Condition problem(LogicCode code, Span span, String message) {
        problems.add(new Problem(code, span, message));
        return null;
    }
}
