package sandpiper.store.schema;

import org.jooq.impl.DSL;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/** The numbers an engine gives to rows by itself. */
public final class RowNumbers {
    private RowNumbers() {}

    /**
     * Goes on behind rows that were added with numbers of their own, so that the next row gets one
     * that none has.
     */
    public static void goOn(SqlSession sql, String table, String column) {
        long next =
                1
                        + sql.number(
                                Tables.sql()
                                        .select(DSL.max(Sql.number(column)))
                                        .from(Sql.table(table)));
        var dialect = sql.dialect();
        var statement =
                dialect.schema()
                        .numberedFrom(
                                dialect.render(DSL.name(table)),
                                dialect.render(DSL.name(column)),
                                next);
        if (statement != null) {
            sql.runOnce(statement);
        }
    }
}
