package sandpiper.store.system;

import java.util.EnumMap;
import java.util.Locale;
import java.util.Map;
import org.jooq.impl.DSL;
import sandpiper.engine.port.Storage.Shared;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import sandpiper.store.table.Tables;

/** Tells other processes what was changed of what they keep in memory. */
public final class Stamps {
    private static final TableStatements TABLE = new TableStatements("sandpiper_stamp");
    private static final Statement ALL = Sql.statement(TABLE.select("name", "number"));
    private static final Statement RAISE =
            Sql.statement(
                    Tables.sql()
                            .update(TABLE.table())
                            .set(Sql.number("number"), Sql.number("number").plus(DSL.inline(1L)))
                            .where(Sql.is("name")));

    private Stamps() {}

    /** Says that something is another now. */
    static void raise(SqlSession session, Shared what) {
        if (!session.isSoleWriter()) {
            session.run(RAISE, what.name().toLowerCase(Locale.ROOT));
        }
    }

    /** All of them. */
    public static Map<Shared, Long> all(SqlSession session) {
        var stamps = new EnumMap<Shared, Long>(Shared.class);
        session.list(
                        ALL,
                        row ->
                                Map.entry(
                                        Shared.valueOf(row.getString(1).toUpperCase(Locale.ROOT)),
                                        row.getLong(2)))
                .forEach(one -> stamps.put(one.getKey(), one.getValue()));
        return stamps;
    }
}
