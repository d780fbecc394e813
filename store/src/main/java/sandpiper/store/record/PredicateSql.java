package sandpiper.store.record;

import org.jooq.Condition;
import org.jooq.impl.DSL;
import sandpiper.logic.syntax.Operator;
import sandpiper.store.table.Tables;

/**
 * Writes a predicate as SQL, with a question mark for each value in the order of {@link
 * Predicate#values}.
 */
final class PredicateSql {
    private final Joins joins;
    private final ScalarSql scalars;

    PredicateSql(Joins joins) {
        this.joins = joins;
        this.scalars = new ScalarSql(joins);
    }

    Condition of(Predicate predicate) {
        return switch (predicate) {
            case Predicate.All(var parts) -> DSL.and(parts.stream().map(this::of).toList());
            case Predicate.Any(var parts) -> DSL.or(parts.stream().map(this::of).toList());
            case Predicate.Not(var inner) -> DSL.not(of(inner));
            case Predicate.Always(var truth) ->
                    truth ? DSL.condition("1 = 1") : DSL.condition("1 = 0");
            case Predicate.Unknown _ -> DSL.condition("null");
            case Predicate.Empty(var scalar) -> scalars.of(scalar).isNull();
            case Predicate.Holds(var flag) -> DSL.condition("{0} = 1", scalars.of(flag));
            case Predicate.Compare(var left, var operator, var right) ->
                    DSL.condition(
                            "{0} " + sign(operator) + " {1}", scalars.of(left), scalars.of(right));
            case Predicate.Among among -> among(among);
            case Predicate.OverItems items -> overItems(items);
            case Predicate.Like(var within, _) ->
                    DSL.condition(
                            "{0} like {1} escape '!'", scalars.of(within), ScalarSql.placeholder());
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

    private Condition among(Predicate.Among among) {
        var inner = joins.inside(Tables.of(among.object()));
        var number = inner.column(ColumnRef.own(Tables.NUMBER));
        var condition = new PredicateSql(inner).of(among.condition());
        return DSL.condition(
                "({0} is not null and {0} in ({1}))",
                joins.column(among.reference()),
                DSL.select(number).from(inner.from()).where(condition));
    }

    private Condition overItems(Predicate.OverItems items) {
        var inner = joins.inside(Tables.of(items.object(), items.part()));
        var holds = new PredicateSql(inner).of(items.condition());
        var owner = inner.column(ColumnRef.own(Tables.OWNER));
        var each =
                DSL.select(DSL.field("{0}", Boolean.class, holds).as("holds"))
                        .from(inner.from())
                        .where(owner.eq(joins.column(ColumnRef.own(Tables.NUMBER))));
        var sure = items.isEvery() ? "min(holds) = 0 then 0" : "max(holds) = 1 then 1";
        var otherwise = items.isEvery() ? 1 : 0;
        return DSL.condition(
                "(select case when %s when count(*) > count(holds) then null else %d end from ({0})) = 1"
                        .formatted(sure, otherwise),
                each);
    }

    private Condition match(Predicate.Match match) {
        var text = scalars.of(match.within());
        return switch (match.place()) {
            case ANYWHERE -> DSL.condition("instr({0}, {1}) > 0", text, ScalarSql.placeholder());
            case START ->
                    DSL.condition(
                            "substr({0}, 1, length({1})) = {2}",
                            text, ScalarSql.placeholder(), ScalarSql.placeholder());
            case END ->
                    DSL.condition(
                            "substr({0}, length({0}) - length({1}) + 1) = {2}",
                            text, ScalarSql.placeholder(), ScalarSql.placeholder());
        };
    }
}
