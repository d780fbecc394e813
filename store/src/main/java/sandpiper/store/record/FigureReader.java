package sandpiper.store.record;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.jooq.Condition;
import org.jooq.GroupField;
import org.jooq.SelectField;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.RecordStorage.FigureRow;
import sandpiper.engine.record.Query;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.Release;
import sandpiper.model.type.ChoiceType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.OutsideChoiceType;
import sandpiper.model.type.TemporalType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.table.Tables;

/** Counts records and adds up their numbers. */
final class FigureReader {
    private static final long QUARTER_HOUR = 900_000_000L;

    /** Numbers are added up in two halves, so that no sum goes beyond what SQLite can hold. */
    private static final long HALF = 1_000_000L;

    private final Release release;
    private final List<Field> sums;
    private final QuerySql writer;
    private final Joins joins;
    private final List<Condition> where;

    FigureReader(Release release, Query query, List<Field> sums) {
        this.release = release;
        this.sums = sums;
        writer = new QuerySql(release, query, _ -> false);
        joins = new Joins(release, Tables.of(query.object()));
        where = writer.filter(joins);
    }

    FigureRow all(SqlSession session) {
        var sql = Tables.sql().select(figures(List.of())).from(joins.from()).where(where).getSQL();
        return session.list(sql, row -> row(row, null, 1), writer.countValues()).getFirst();
    }

    List<FigureRow> by(SqlSession session, Field by, int limit) {
        var key = new Key(by);
        boolean inTime = by.type() instanceof TemporalType;
        var sql =
                Tables.sql()
                        .select(figures(key.columns))
                        .from(joins.from())
                        .where(where)
                        .groupBy(List.<GroupField>copyOf(key.columns))
                        .orderBy((inTime ? key.columns.getFirst() : DSL.count()).desc())
                        .limit(DSL.inline(limit))
                        .getSQL();
        return session.list(
                sql, row -> row(row, key, key.columns.size() + 1), writer.countValues());
    }

    private List<SelectField<?>> figures(List<org.jooq.Field<?>> first) {
        var selected = new ArrayList<SelectField<?>>(first);
        selected.add(DSL.count());
        for (var field : sums) {
            var column = joins.column(ColumnRef.own(field.name()));
            selected.add(DSL.field("sum({0} / " + HALF + ")", Long.class, column));
            selected.add(DSL.field("sum({0} % " + HALF + ")", Long.class, column));
        }
        return selected;
    }

    private FigureRow row(ResultSet row, @Nullable Key key, int first) throws SQLException {
        var added = new ArrayList<BigDecimal>();
        for (int i = 0; i < sums.size(); i++) {
            var high = BigInteger.valueOf(row.getLong(first + 1 + 2 * i));
            var low = BigInteger.valueOf(row.getLong(first + 2 + 2 * i));
            int scale = ((NumberType) sums.get(i).type()).scale();
            added.add(new BigDecimal(high.multiply(BigInteger.valueOf(HALF)).add(low), scale));
        }
        return new FigureRow(key == null ? null : key.read(row), row.getLong(first), added);
    }

    /** What is counted by: a column of its own, or those of a link. */
    private final class Key {
        private final List<org.jooq.Field<?>> columns;
        private final @Nullable PathColumns link;
        private final boolean text;
        private final long unit;

        Key(Field by) {
            link =
                    by.type() instanceof FieldType.Reference
                            ? new PathColumns(release, joins, 1, List.of(FieldPath.of(by)), true)
                            : null;
            boolean isMoment =
                    by.type() instanceof TemporalType temporal
                            && temporal.keyword() == TypeKeyword.DATE_TIME;
            unit = isMoment ? QUARTER_HOUR : 1;
            var column = joins.column(ColumnRef.own(by.name()));
            columns =
                    link != null
                            ? link.columns()
                            : List.of(isMoment ? quarterHour(column) : column);
            text =
                    by.type() instanceof TextType
                            || by.type() instanceof ChoiceType
                            || by.type() instanceof OutsideChoiceType;
        }

        /** Rounded down, before 1970 too. */
        private static org.jooq.Field<Long> quarterHour(org.jooq.Field<?> column) {
            return DSL.field(
                    "({0} - (({0} % {1}) + {1}) % {1}) / {1}",
                    Long.class, column, DSL.inline(QUARTER_HOUR));
        }

        @Nullable Object read(ResultSet row) throws SQLException {
            if (link != null) {
                return link.read(row)[0];
            }
            if (text) {
                return row.getString(1);
            }
            long value = row.getLong(1);
            return row.wasNull() ? null : (Object) (value * unit);
        }
    }
}
