package sandpiper.store.record;

import java.util.ArrayList;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.QueryPart;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.store.sql.Either;
import sandpiper.store.table.Letters;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/**
 * Writes a scalar as SQL, with a question mark for each value in the order of {@link
 * Scalar#values}.
 */
final class ScalarSql {
    /** The first day of the year 1, and the last of the year 9999, from 1970-01-01. */
    private static final long FIRST_DAY = -719_162;

    private static final long LAST_DAY = 2_932_896;

    private final Joins joins;

    ScalarSql(Joins joins) {
        this.joins = joins;
    }

    Field<Object> of(Scalar scalar) {
        return switch (scalar) {
            case Scalar.Column(var ref) -> joins.column(ref);
            case Scalar.Bound(var value) -> bound(value);
            case Scalar.Keyed(var object, var column, _) ->
                    expression(
                            "coalesce((select {0} from {1} where {2} = {3}), -1)",
                            Sql.column(Tables.NUMBER),
                            Sql.table(Tables.of(object)),
                            Sql.column(column),
                            Sql.value());
            case Scalar.Truth(var predicate) ->
                    Either.field(
                            "({0})",
                            "cast(({0}) as integer)", new PredicateSql(joins).of(predicate));
            case Scalar.Arithmetic(char sign, var left, var right) ->
                    wide("({0} " + sign + " {1})", of(left), of(right));
            case Scalar.Times(var inner, long factor) ->
                    factor == 1 ? of(inner) : wide("({0} * " + factor + ")", of(inner));
            case Scalar.Whole(var inner, long divisor) ->
                    Either.field("({0} / " + divisor + ")", "div({0}, " + divisor + ")", of(inner));
            case Scalar.DatePiece(var day, char letter) -> datePiece(letter, of(day));
            case Scalar.Letters(var text, boolean capital) -> Letters.of(of(text), capital);
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
            return Either.field(
                    "(select " + bounds + " from (select {0} as v))",
                    "(select cast(" + bounds + " as bigint) from (select {0} as v) as fitted)",
                    of(fitted.scalar()));
        }
        var rounded = rounded(fitted);
        return Either.field(
                "(select " + bounds + " from (select " + rounded + " as v from (select {0} as n)))",
                "(select cast("
                        + bounds
                        + " as bigint) from (select "
                        + rounded.replaceAll("n / (\\d+)", "div(n, $1)")
                        + " as v from (select {0} as n) as given) as fitted)",
                of(fitted.scalar()));
    }

    /** Division of whole numbers cuts off; what is left tells whether one more is due. */
    private static String rounded(Scalar.Fitted fitted) {
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
        return ("n / %1$d + case when "
                        + due
                        + " then case when n < 0 then -1 else 1 end else 0"
                        + " end")
                .formatted(fitted.divisor());
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

    private static Field<Object> expression(String sql, QueryPart... parts) {
        return DSL.field(sql, Object.class, parts);
    }

    /**
     * Something reckoned: SQLite goes on with what is too large for a whole number, PostgreSQL does
     * not.
     */
    private static Field<Object> wide(String sql, QueryPart... parts) {
        return Either.field(sql, sql.replace("({0}", "(cast({0} as numeric)"), parts);
    }

    private static Field<Object> bound(@Nullable Object value) {
        return value instanceof String
                ? Either.field("{0}", "(cast({0} as text) collate \"C\")", Sql.value())
                : Sql.value();
    }

    /** Of a day that no calendar has there is none. */
    private static Field<Object> datePiece(char letter, Field<Object> day) {
        var name =
                switch (letter) {
                    case 'Y' -> "year";
                    case 'm' -> "month";
                    default -> "day";
                };
        return Either.field(
                "cast(strftime('%" + letter + "', {0} * 86400, 'unixepoch') as integer)",
                "(select case when d between %d and %d then cast(extract(%s from date '1970-01-01' + cast(d as integer)) as bigint) end from (select {0} as d) as days)"
                        .formatted(FIRST_DAY, LAST_DAY, name),
                day);
    }
}
