package sandpiper.store.system;

import java.util.List;
import sandpiper.engine.port.RecomputationStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;

/** Formulas to be worked out again, in their table. */
public final class SqlRecomputations implements RecomputationStorage {
    private static final TableStatements TABLE = new TableStatements("sandpiper_recomputation");
    private static final TableStatements SETTINGS = new TableStatements("sandpiper_setting");
    private static final Statement ALL =
            Sql.statement(TABLE.select("formula", "reached").orderBy(Sql.column("formula")));
    private static final Statement PUT = TABLE.put(List.of("formula"), "reached");
    private static final Statement REMOVE = TABLE.delete(Sql.is("formula"));
    private static final Statement SETTING = SETTINGS.selectBy("name", "value");
    private static final Statement PUT_SETTING = SETTINGS.put(List.of("name"), "value");

    private static final String REVISION = "formulas-revision";

    @Override
    public List<Open> all(Session session) {
        return SqlSession.of(session).list(ALL, row -> new Open(row.getString(1), row.getLong(2)));
    }

    @Override
    public void put(Transaction transaction, Open open) {
        SqlSession.of(transaction).run(PUT, open.formula(), open.reached());
    }

    @Override
    public int revision(Session session) {
        return SqlSession.of(session)
                .first(SETTING, row -> Integer.parseInt(row.getString(1)), REVISION)
                .orElse(0);
    }

    @Override
    public void revised(Transaction transaction, int revision) {
        SqlSession.of(transaction).run(PUT_SETTING, REVISION, String.valueOf(revision));
    }

    @Override
    public void remove(Transaction transaction, String formula) {
        SqlSession.of(transaction).run(REMOVE, formula);
    }
}
