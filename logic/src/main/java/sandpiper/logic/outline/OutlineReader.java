package sandpiper.logic.outline;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.outline.Outline.Quantity;
import sandpiper.logic.outline.Side.Unit;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.syntax.ExprText;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.syntax.Parser;

/** Takes a tree apart. */
final class OutlineReader {
    private static final Map<String, Relation> TESTS =
            Map.of(
                    "contains", Relation.CONTAINS,
                    "starts with", Relation.BEGINS,
                    "ends with", Relation.ENDS,
                    "matches", Relation.MATCHES);
    private static final Map<String, Side.Function> TOTALS =
            Map.of(
                    "count", Side.Function.COUNT,
                    "sum", Side.Function.SUM,
                    "min", Side.Function.MIN,
                    "max", Side.Function.MAX,
                    "mean", Side.Function.MEAN);
    private static final Pattern SPAN = Pattern.compile("P(T?)(\\d{1,5})([YMDH])");
    private static final int WEEK = 7;

    private final int[] source;

    OutlineReader(String source) {
        this.source = source.codePoints().toArray();
    }

    Outline condition(Expr expr) {
        return switch (expr) {
            case Expr.Logical logical -> group(logical, false);
            case Expr.Comparison comparison -> comparison(comparison);
            case Expr.Between between ->
                    new Outline.Comparison(
                            operand(between.value()),
                            Relation.BETWEEN,
                            List.of(operand(between.low()), operand(between.high())));
            case Expr.In in -> in(in, Relation.ONE_OF);
            case Expr.Quantified quantified ->
                    items(quantified, quantified.isEvery() ? Quantity.EVERY : Quantity.SOME);
            case Expr.Call call -> call(call);
            case Expr.Name _, Expr.Path _ ->
                    path(expr)
                            .<Outline>map(path ->
                                    new Outline.Comparison(
                                            new Side.Field(path), Relation.HOLDS, List.of()))
                            .orElseGet(() -> text(expr));
            default -> text(expr);
        };
    }

    private Outline group(Expr.Logical logical, boolean negated) {
        return new Outline.Group(
                logical.isAnd(), negated, logical.parts().stream().map(this::condition).toList());
    }

    private Outline comparison(Expr.Comparison comparison) {
        var of = operand(comparison.left());
        if (comparison.right() instanceof Expr.NullLiteral
                && !comparison.operator().ordersValues()) {
            return new Outline.Comparison(
                    of,
                    comparison.operator() == Operator.EQUAL ? Relation.EMPTY : Relation.FILLED,
                    List.of());
        }
        var relation =
                switch (comparison.operator()) {
                    case EQUAL -> Relation.EQUAL;
                    case NOT_EQUAL -> Relation.UNEQUAL;
                    case LESS -> Relation.LESS;
                    case LESS_OR_EQUAL -> Relation.AT_MOST;
                    case GREATER -> Relation.GREATER;
                    case GREATER_OR_EQUAL -> Relation.AT_LEAST;
                };
        return new Outline.Comparison(of, relation, List.of(operand(comparison.right())));
    }

    private Outline in(Expr.In in, Relation relation) {
        boolean plain =
                in.tests().stream()
                        .noneMatch(test ->
                                test instanceof Expr.UnaryTest
                                        || test instanceof Expr.Range
                                        || test instanceof Expr.ListLiteral);
        return plain
                ? new Outline.Comparison(
                        operand(in.value()),
                        relation,
                        in.tests().stream().map(this::operand).toList())
                : text(in);
    }

    private Outline items(Expr.Quantified quantified, Quantity quantity) {
        if (quantified.iterators().size() == 1) {
            var iterator = quantified.iterators().getFirst();
            var list = path(iterator.domain());
            if (list.isPresent() && iterator.end() == null) {
                return new Outline.Items(
                        quantity, list.get(), iterator.name(), condition(quantified.condition()));
            }
        }
        return text(quantified);
    }

    private Outline call(Expr.Call call) {
        var arguments = call.arguments();
        boolean byPlace = arguments.stream().allMatch(one -> one.name() == null);
        var test = TESTS.get(call.function());
        if (byPlace && test != null && arguments.size() == 2) {
            return new Outline.Comparison(
                    operand(arguments.get(0).value()),
                    test,
                    List.of(operand(arguments.get(1).value())));
        }
        return byPlace && call.function().equals("not") && arguments.size() == 1
                ? opposite(arguments.getFirst().value())
                : text(call);
    }

    private Outline opposite(Expr of) {
        return switch (of) {
            case Expr.Logical logical -> group(logical, true);
            case Expr.In in when in(in, Relation.NONE_OF) instanceof Outline.Comparison none ->
                    none;
            case Expr.Quantified quantified
                    when !quantified.isEvery()
                            && items(quantified, Quantity.NONE) instanceof Outline.Items none ->
                    none;
            case Expr.Name _, Expr.Path _ when path(of).isPresent() ->
                    new Outline.Comparison(
                            new Side.Field(path(of).get()), Relation.HOLDS_NOT, List.of());
            default -> new Outline.Group(true, true, List.of(condition(of)));
        };
    }

    private Side operand(Expr expr) {
        var found =
                switch (expr) {
                    case Expr.TextLiteral text -> new Side.Value(Side.Kind.TEXT, text.value());
                    case Expr.NumberLiteral number ->
                            new Side.Value(Side.Kind.NUMBER, number.value().toPlainString());
                    case Expr.Negation(Expr.NumberLiteral number, _) ->
                            new Side.Value(Side.Kind.NUMBER, "-" + number.value().toPlainString());
                    case Expr.BooleanLiteral flag ->
                            new Side.Value(Side.Kind.BOOLEAN, String.valueOf(flag.value()));
                    case Expr.TemporalLiteral temporal ->
                            new Side.Value(Side.Kind.TEMPORAL, temporal.text());
                    case Expr.Name _, Expr.Path _ -> path(expr).map(Side.Field::new).orElse(null);
                    case Expr.Call call -> ofCall(call);
                    case Expr.Arithmetic arithmetic -> relative(arithmetic);
                    default -> null;
                };
        return found == null ? new Side.Expression(written(expr)) : found;
    }

    private @Nullable Side ofCall(Expr.Call call) {
        if (call.arguments().isEmpty()) {
            return switch (call.function()) {
                case "today" -> new Side.Relative(false, 0, Unit.DAYS);
                case "now" -> new Side.Relative(true, 0, Unit.DAYS);
                default -> null;
            };
        }
        var total = TOTALS.get(call.function());
        boolean ofOne = call.arguments().size() == 1 && call.arguments().getFirst().name() == null;
        return total == null || !ofOne
                ? null
                : path(call.arguments().getFirst().value())
                        .map(path -> new Side.Total(total, path))
                        .orElse(null);
    }

    private @Nullable Side relative(Expr.Arithmetic arithmetic) {
        if (!(arithmetic.left() instanceof Expr.Call call)
                || !(ofCall(call) instanceof Side.Relative base)
                || !(arithmetic.right() instanceof Expr.TemporalLiteral far)) {
            return null;
        }
        var span = SPAN.matcher(far.text());
        if (!span.matches()) {
            return null;
        }
        int sign =
                switch (arithmetic.operator()) {
                    case PLUS -> 1;
                    case MINUS -> -1;
                    default -> 0;
                };
        int amount = Integer.parseInt(span.group(2));
        var unit =
                switch (span.group(3)) {
                    case "Y" -> Unit.YEARS;
                    case "M" -> Unit.MONTHS;
                    case "D" -> Unit.DAYS;
                    default -> Unit.HOURS;
                };
        boolean isTime = !span.group(1).isEmpty();
        if (sign == 0 || amount == 0 || isTime != (unit == Unit.HOURS)) {
            return null;
        }
        return unit == Unit.DAYS && amount % WEEK == 0
                ? new Side.Relative(base.exact(), sign * amount / WEEK, Unit.WEEKS)
                : new Side.Relative(base.exact(), sign * amount, unit);
    }

    private static Optional<String> path(Expr expr) {
        return switch (expr) {
            case Expr.Name name when !name.text().contains(" ") -> Optional.of(name.text());
            case Expr.Path(var from, var member, _, _) when !member.contains(" ") ->
                    path(from).map(text -> text + "." + member);
            default -> Optional.empty();
        };
    }

    private Outline text(Expr expr) {
        return new Outline.Text(written(expr));
    }

    /** As it was written when that reads as the same by itself, else written anew. */
    private String written(Expr expr) {
        var span = expr.span();
        var slice = new String(source, span.start(), span.end() - span.start());
        var alone = Parser.parse(slice);
        var anew = ExprText.of(expr);
        return alone.problems().isEmpty() && ExprText.of(alone.expr()).equals(anew) ? slice : anew;
    }
}
