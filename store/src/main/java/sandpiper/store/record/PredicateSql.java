package sandpiper.store.record;

import org.jooq.Condition;
import org.jooq.impl.DSL;
import sandpiper.store.sql.Either;
import sandpiper.store.table.Sql;
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
            case Predicate.Compare compare -> compare(compare);
            case Predicate.Among among -> among(among);
            case Predicate.OverItems items -> overItems(items);
            case Predicate.Like(var within, _) ->
                    Either.condition(
                            "{0} like {1} escape '!'",
                            "{0} ilike {1} escape '!'", scalars.of(within), Sql.value());
            case Predicate.Match match -> match(match);
        };
    }

    /**
     * Equality tells empty from filled as FEEL's does, where SQL's would be unknown. PostgreSQL
     * looks up in an index only what is compared by {@code =}.
     */
    private Condition compare(Predicate.Compare compare) {
        var left = scalars.of(compare.left());
        var right = scalars.of(compare.right());
        var looksUp = compare.left() instanceof Scalar.Column && isFilled(compare.right());
        return switch (compare.operator()) {
            case EQUAL ->
                    Either.condition(
                            "{0} is {1}",
                            looksUp
                                    ? "({0} is not null and {0} = {1})"
                                    : "{0} is not distinct from {1}",
                            left,
                            right);
            case NOT_EQUAL ->
                    Either.condition("{0} is not {1}", "{0} is distinct from {1}", left, right);
            default -> DSL.condition("{0} " + compare.operator().symbol() + " {1}", left, right);
        };
    }

    private static boolean isFilled(Scalar scalar) {
        return scalar instanceof Scalar.Keyed
                || (scalar instanceof Scalar.Bound(var value) && value != null);
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
                DSL.select(Either.field("{0}", "cast({0} as integer)", holds).as("holds"))
                        .from(inner.from())
                        .where(owner.eq(joins.column(ColumnRef.own(Tables.NUMBER))));
        var sure = items.isEvery() ? "min(holds) = 0 then 0" : "max(holds) = 1 then 1";
        var otherwise = items.isEvery() ? 1 : 0;
        return DSL.condition(
                "(select case when %s when count(*) > count(holds) then null else %d end from ({0}) as items) = 1"
                        .formatted(sure, otherwise),
                each);
    }

    private Condition match(Predicate.Match match) {
        var text = scalars.of(match.within());
        return switch (match.place()) {
            case ANYWHERE ->
                    Either.condition(
                            "instr({0}, {1}) > 0", "strpos({0}, {1}) > 0", text, Sql.value());
            case START ->
                    DSL.condition(
                            "substr({0}, 1, length({1})) = {2}", text, Sql.value(), Sql.value());
            case END ->
                    DSL.condition(
                            "substr({0}, length({0}) - length({1}) + 1) = {2}",
                            text, Sql.value(), Sql.value());
        };
    }
}
