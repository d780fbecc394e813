package sandpiper.store.record;

import org.jooq.Condition;
import org.jooq.impl.DSL;
import sandpiper.logic.syntax.Operator;

/**
 * Writes a predicate as SQL, with a question mark for each value in the order of {@link
 * Predicate#values}.
 */
final class PredicateSql {
    private final Joins joins;

    PredicateSql(Joins joins) {
        this.joins = joins;
    }

    Condition of(Predicate predicate) {
        return switch (predicate) {
            case Predicate.All(var parts) -> DSL.and(parts.stream().map(this::of).toList());
            case Predicate.Any(var parts) -> DSL.or(parts.stream().map(this::of).toList());
            case Predicate.Not(var inner) -> DSL.not(of(inner));
            case Predicate.Always(var truth) ->
                    truth ? DSL.condition("1 = 1") : DSL.condition("1 = 0");
            case Predicate.Unknown _ -> DSL.condition("null");
            case Predicate.Empty(var column) -> joins.column(column).isNull();
            case Predicate.Compare(var column, var operator, _) ->
                    DSL.condition(
                            "{0} " + sign(operator) + " {1}", joins.column(column), placeholder());
            case Predicate.CompareColumns(
                            var left,
                            var leftFactor,
                            var operator,
                            var right,
                            var rightFactor) ->
                    DSL.condition(
                            "{0} " + sign(operator) + " {1}",
                            times(left, leftFactor),
                            times(right, rightFactor));
            case Predicate.Match match -> match(match);
        };
    }

    /**
     * {@code is} tells empty from filled as FEEL's equality does, where SQL's would be unknown; it
     * uses an index as well.
     */
    private static String sign(Operator operator) {
        return switch (operator) {
            case EQUAL -> "is";
            case NOT_EQUAL -> "is not";
            default -> operator.symbol();
        };
    }

    private org.jooq.Field<?> times(ColumnRef column, long factor) {
        return factor == 1 ? joins.column(column) : joins.number(column).mul(DSL.inline(factor));
    }

    private Condition match(Predicate.Match match) {
        var text = joins.text(match.column());
        return switch (match.place()) {
            case ANYWHERE -> DSL.condition("instr({0}, {1}) > 0", text, placeholder());
            case START ->
                    DSL.condition(
                            "substr({0}, 1, length({1})) = {2}",
                            text, placeholder(), placeholder());
            case END ->
                    DSL.condition(
                            "substr({0}, -length({1})) = {2}", text, placeholder(), placeholder());
        };
    }

    static org.jooq.Field<Object> placeholder() {
        return DSL.param("v", Object.class);
    }
}
