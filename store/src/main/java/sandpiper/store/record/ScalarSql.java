package sandpiper.store.record;

import java.util.ArrayList;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.impl.DSL;
import sandpiper.store.sql.LetterFunctions;
import sandpiper.store.table.Tables;

/**
 * Writes a scalar as SQL, with a question mark for each value in the order of {@link
 * Scalar#values}.
 */
final class ScalarSql {
    private final Joins joins;

    ScalarSql(Joins joins) {
        this.joins = joins;
    }

    Field<Object> of(Scalar scalar) {
        return switch (scalar) {
            case Scalar.Column(var ref) -> joins.column(ref);
            case Scalar.Bound _ -> placeholder();
            case Scalar.Keyed(var object, var column, _) ->
                    expression(
                            "coalesce((select %s from %s where %s = {0}), -1)"
                                    .formatted(
                                            Tables.quoted(Tables.NUMBER),
                                            Tables.quoted(Tables.of(object)),
                                            Tables.quoted(column)),
                            placeholder());
            case Scalar.Truth(var predicate) ->
                    expression("({0})", new PredicateSql(joins).of(predicate));
            case Scalar.Arithmetic(char sign, var left, var right) ->
                    expression("({0} " + sign + " {1})", of(left), of(right));
            case Scalar.Times(var inner, long factor) ->
                    factor == 1 ? of(inner) : expression("({0} * " + factor + ")", of(inner));
            case Scalar.Whole(var inner, long divisor) ->
                    expression("({0} / " + divisor + ")", of(inner));
            case Scalar.DatePiece(var day, char letter) ->
                    expression(
                            "cast(strftime('%"
                                    + letter
                                    + "', {0} * 86400, 'unixepoch') as integer)",
                            of(day));
            case Scalar.Letters(var text, boolean capital) ->
                    expression(
                            (capital ? LetterFunctions.CAPITAL : LetterFunctions.SMALL) + "({0})",
                            of(text));
            case Scalar.Length(var text) -> expression("length({0})", of(text));
            case Scalar.Choice(var when, var then, var otherwise) ->
                    expression(
                            "case when {0} then {1} else {2} end",
                            new PredicateSql(joins).of(when), of(then), of(otherwise));
            case Scalar.Fitted fitted -> fitted(fitted);
            case Scalar.Total total -> total(total);
        };
    }

    /** The value stands in a select of its own, so that its SQL is written and run once. */
    private Field<Object> fitted(Scalar.Fitted fitted) {
        var bounds = "case when v between -%1$d and %1$d then v end".formatted(fitted.largest());
        if (fitted.divisor() == 1) {
            return expression(
                    "(select " + bounds + " from (select {0} as v))", of(fitted.scalar()));
        }
        // Division of whole numbers cuts off; what is left tells whether one more is due.
        var due =
                switch (fitted.rounding()) {
                    case HALF_UP -> "abs(n %% %1$d) * 2 >= %1$d";
                    case HALF_DOWN -> "abs(n %% %1$d) * 2 > %1$d";
                    case HALF_EVEN ->
                            "abs(n %% %1$d) * 2 > %1$d or (abs(n %% %1$d) * 2 = %1$d and n / %1$d"
                                    + " %% 2 <> 0)";
                    case UP -> "n %% %1$d <> 0";
                    case DOWN -> "0";
                };
        var rounded =
                ("n / %1$d + case when "
                                + due
                                + " then case when n < 0 then -1 else 1 end else 0"
                                + " end")
                        .formatted(fitted.divisor());
        return expression(
                "(select " + bounds + " from (select " + rounded + " as v from (select {0} as n)))",
                of(fitted.scalar()));
    }

    private Field<Object> total(Scalar.Total total) {
        var inner = joins.inside(Tables.of(total.object()));
        var sql = new ScalarSql(inner);
        var counted = total.value() == null ? DSL.field("*") : sql.of(total.value());
        var where = new ArrayList<Condition>();
        where.add(DSL.condition("{0} = 0", inner.column(ColumnRef.own(Tables.RETIRED))));
        if (total.link() != null) {
            where.add(
                    DSL.condition(
                            "{0} = {1}", inner.column(total.link()), joins.column(total.owner())));
        }
        if (total.where() != null) {
            where.add(new PredicateSql(inner).of(total.where()));
        }
        var all = expression(total.function() + "({0})", counted);
        var value = total.function().equals("sum") ? expression("coalesce({0}, 0)", all) : all;
        return expression("{0}", DSL.field(DSL.select(value).from(inner.from()).where(where)));
    }

    private static Field<Object> expression(String sql, org.jooq.QueryPart... parts) {
        return DSL.field(sql, Object.class, parts);
    }

    static Field<Object> placeholder() {
        return DSL.param("v", Object.class);
    }
}
