package sandpiper.store.record;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.RoundingMode;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.SortField;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.record.Aggregation;
import sandpiper.engine.record.Query;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.Release;
import sandpiper.model.type.NumberType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.table.ColumnValues;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/** Brings the records of a query to groups, with counts, sums and the like of each. */
final class AggregateReader {
    private static final long QUARTER_HOUR = 900_000_000L;

    /** Numbers are added up in two halves, so that no sum goes beyond what an engine can hold. */
    private static final long HALF = 1_000_000L;

    /** Decimal places an average has beyond those of what it is of. */
    private static final int MORE_PLACES = 6;

    private final Release release;
    private final Aggregation wanted;
    private final QuerySql writer;
    private final Joins joins;
    private final List<Condition> where;
    private final List<Field<?>> columns = new ArrayList<>();
    private final List<Output> outputs = new ArrayList<>();

    /** Reads one value from a row. */
    @FunctionalInterface
    private interface Reader {
        @Nullable Object read(ResultSet row) throws SQLException;
    }

    /** A key or a measure: what groups are put in order by, and how it is read. */
    private record Output(List<? extends Field<?>> order, Reader reader) {}

    AggregateReader(Release release, Query query, Aggregation wanted) {
        this.release = release;
        this.wanted = wanted;
        writer = new QuerySql(release, query, _ -> false);
        joins = new Joins(release, Tables.of(query.object()));
        where = writer.filter(joins);
        wanted.keys().forEach(key -> outputs.add(key(key)));
    }

    List<Aggregation.Row> rows(SqlSession session) {
        var keys = List.copyOf(columns);
        wanted.measures().forEach(measure -> outputs.add(measure(measure)));
        var select = Tables.sql().select(columns).from(joins.from()).where(where);
        // Without keys there is a group even of nothing, which GROUP BY would leave out.
        var statement =
                Sql.statement(
                        (keys.isEmpty() ? select : select.groupBy(keys))
                                .orderBy(order(keys))
                                .limit(DSL.inline(wanted.limit()))
                                .offset(DSL.inline(wanted.skip())));
        return session.list(statement, this::row, writer.countValues());
    }

    private List<SortField<?>> order(List<Field<?>> keys) {
        var order = new ArrayList<SortField<?>>();
        for (var one : wanted.orders()) {
            for (var column : outputs.get(one.column()).order()) {
                order.add(one.descending() ? Sql.falling(column) : Sql.rising(column));
            }
        }
        keys.forEach(key -> order.add(Sql.rising(key)));
        return order;
    }

    private Aggregation.Row row(ResultSet row) throws SQLException {
        var values = new ArrayList<@Nullable Object>();
        for (var output : outputs) {
            values.add(output.reader().read(row));
        }
        int keys = wanted.keys().size();
        return new Aggregation.Row(values.subList(0, keys), values.subList(keys, values.size()));
    }

    private int select(Field<?> column) {
        columns.add(column);
        return columns.size();
    }

    private Output key(Aggregation.Key key) {
        if (key.coarse()) {
            var rounded = quarterHour(column(key.path()));
            int at = select(rounded);
            return new Output(
                    List.of(rounded),
                    row -> {
                        long quarters = row.getLong(at);
                        return row.wasNull() ? null : (Object) (quarters * QUARTER_HOUR);
                    });
        }
        var path = new PathColumns(release, joins, columns.size() + 1, List.of(key.path()), true);
        columns.addAll(path.columns());
        return new Output(path.columns(), row -> path.read(row)[0]);
    }

    private Field<Object> column(FieldPath path) {
        return joins.column(new ColumnRef(path.way(), path.last().name()));
    }

    /** Rounded down, before 1970 too. */
    private static Field<Long> quarterHour(Field<?> column) {
        return DSL.field(
                "({0} - (({0} % {1}) + {1}) % {1}) / {1}",
                Long.class, column, DSL.inline(QUARTER_HOUR));
    }

    private Output measure(Aggregation.Measure measure) {
        if (measure.of() == null) {
            return counted(DSL.count());
        }
        var column = column(measure.of());
        return switch (measure.function()) {
            case COUNT -> counted(DSL.count(column));
            case DISTINCT -> counted(DSL.countDistinct(column));
            case MIN -> of(DSL.min(column), measure.of());
            case MAX -> of(DSL.max(column), measure.of());
            case SUM -> sum(column, scale(measure.of()));
            case AVERAGE -> average(column, scale(measure.of()));
        };
    }

    private Output counted(Field<Integer> count) {
        int at = select(count);
        return new Output(List.of(count), row -> row.getLong(at));
    }

    private Output of(Field<?> extreme, FieldPath path) {
        int at = select(extreme);
        return new Output(List.of(extreme), row -> ColumnValues.read(path.last(), row, at));
    }

    private static int scale(FieldPath path) {
        return ((NumberType) path.last().type()).scale();
    }

    private Output sum(Field<?> column, int scale) {
        // The lower half never below nothing, so that sums can be compared by their halves.
        var rest = DSL.field("sum({0} % {1})", Long.class, column, DSL.inline(HALF));
        var low = DSL.field("(({0} % {1}) + {1}) % {1}", Long.class, rest, DSL.inline(HALF));
        var high =
                DSL.field(
                        "sum({0} / {1}) + ({2} - {3}) / {1}",
                        Long.class, column, DSL.inline(HALF), rest, low);
        int highAt = select(high);
        int lowAt = select(low);
        return new Output(List.of(high, low), row -> exact(row, highAt, lowAt, scale));
    }

    private Output average(Field<?> column, int scale) {
        var sum = sum(column, scale);
        int at = select(DSL.count(column));
        return new Output(
                List.of(DSL.field("avg({0})", Double.class, column)),
                row -> {
                    var added = (BigDecimal) sum.reader().read(row);
                    return added == null
                            ? null
                            : added.divide(
                                    BigDecimal.valueOf(row.getLong(at)),
                                    scale + MORE_PLACES,
                                    RoundingMode.HALF_EVEN);
                });
    }

    private static @Nullable BigDecimal exact(ResultSet row, int highAt, int lowAt, int scale)
            throws SQLException {
        var high = BigInteger.valueOf(row.getLong(highAt));
        if (row.wasNull()) {
            return null;
        }
        var low = BigInteger.valueOf(row.getLong(lowAt));
        return new BigDecimal(high.multiply(BigInteger.valueOf(HALF)).add(low), scale);
    }
}
