package sandpiper.store.record;

import java.util.function.Function;
import org.jooq.impl.DSL;
import sandpiper.model.release.ObjectType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import sandpiper.store.table.Tables;

/**
 * A count that goes on with what is written: it is undone with it, so that none is left out. Others
 * wait for its end.
 */
public final class StoredSeries implements Series {
    private static final TableStatements TABLE = new TableStatements("sandpiper_series");

    /** The first so many of a series, or the next. */
    static final Statement DRAW =
            Sql.statement(
                            Tables.sql()
                                    .insertInto(
                                            TABLE.table(),
                                            Sql.column("object"),
                                            Sql.column("series"),
                                            Sql.column("last"))
                                    .values(Sql.value(), Sql.value(), Sql.value())
                                    .onConflict(Sql.column("object"), Sql.column("series"))
                                    .doUpdate()
                                    .set(
                                            Sql.number("last"),
                                            TABLE.number("last")
                                                    .plus(DSL.excluded(Sql.number("last")))))
                    .returning("last");

    @Override
    public long next(SqlSession session, ObjectType object, String series) {
        return session.insert(DRAW, object.name(), series, 1L);
    }

    @Override
    public <T> T beside(SqlSession session, Function<SqlSession, T> reading) {
        return reading.apply(session);
    }
}
