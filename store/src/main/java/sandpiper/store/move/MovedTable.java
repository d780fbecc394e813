package sandpiper.store.move;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import sandpiper.store.table.Tables;

/**
 * A table that is carried over.
 *
 * @param order the columns its rows are put in order by, so that they come in the same on both
 */
record MovedTable(String name, List<String> columns, List<String> order) {
    /** Rows that are put in at once. */
    private static final int AT_ONCE = 500;

    MovedTable {
        columns = List.copyOf(columns);
        order = List.copyOf(order);
    }

    private String[] names() {
        return columns.toArray(String[]::new);
    }

    private Statement rows() {
        return Sql.statement(
                new TableStatements(name)
                        .select(names())
                        .orderBy(order.stream().map(Sql::column).map(Sql::rising).toList()));
    }

    private @Nullable Object[] read(ResultSet row) throws SQLException {
        var values = new @Nullable Object[columns.size()];
        for (int i = 0; i < values.length; i++) {
            var value = row.getObject(i + 1);
            values[i] = value instanceof Number number ? (Object) number.longValue() : value;
        }
        return values;
    }

    /** What its rows come to. */
    RowDigest digest(SqlSession session) {
        var digest = new RowDigest();
        session.each(rows(), row -> digest.add(read(row)));
        return digest;
    }

    /** Carries its rows over; gives what they come to. */
    RowDigest copy(SqlSession from, SqlSession to) {
        var digest = new RowDigest();
        var insert = new TableStatements(name).insert(names());
        var waiting = new ArrayList<@Nullable Object[]>();
        from.each(
                rows(),
                row -> {
                    var values = read(row);
                    digest.add(values);
                    waiting.add(values);
                    if (waiting.size() == AT_ONCE) {
                        to.runAll(insert, waiting);
                        waiting.clear();
                    }
                });
        to.runAll(insert, waiting);
        return digest;
    }

    /** Copies its rows from another schema of the same database. */
    void copyWithin(SqlSession session, String schema) {
        var fields = columns.stream().map(Sql::column).toList();
        session.runOnce(
                Tables.sql()
                        .insertInto(Sql.table(name), fields)
                        .select(DSL.select(fields).from(DSL.table(DSL.name(schema, name)))));
    }

    /** Makes it as it is in another schema of the same database, with its rows. */
    void remakeWithin(SqlSession session, String schema) {
        session.runOnce(
                Tables.sql()
                        .createTable(Sql.table(name))
                        .as(DSL.select(DSL.asterisk()).from(DSL.table(DSL.name(schema, name)))));
    }
}
