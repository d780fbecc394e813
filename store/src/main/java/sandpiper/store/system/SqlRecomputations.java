package sandpiper.store.system;

import java.util.List;
import sandpiper.engine.port.RecomputationStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.store.sql.SqlSession;

/** Formulas to be worked out again, in their table. */
public final class SqlRecomputations implements RecomputationStorage {
    private static final String REVISION = "formulas-revision";

    @Override
    public List<Open> all(Session session) {
        return SqlSession.of(session)
                .list(
                        "select formula, reached from sandpiper_recomputation order by formula",
                        row -> new Open(row.getString(1), row.getLong(2)));
    }

    @Override
    public void put(Transaction transaction, Open open) {
        SqlSession.of(transaction)
                .run(
                        "insert or replace into sandpiper_recomputation (formula, reached) values"
                                + " (?, ?)",
                        open.formula(),
                        open.reached());
    }

    @Override
    public int revision(Session session) {
        return SqlSession.of(session)
                .first(
                        "select value from sandpiper_setting where name = ?",
                        row -> Integer.parseInt(row.getString(1)),
                        REVISION)
                .orElse(0);
    }

    @Override
    public void revised(Transaction transaction, int revision) {
        SqlSession.of(transaction)
                .run(
                        "insert or replace into sandpiper_setting (name, value) values (?, ?)",
                        REVISION,
                        String.valueOf(revision));
    }

    @Override
    public void remove(Transaction transaction, String formula) {
        SqlSession.of(transaction)
                .run("delete from sandpiper_recomputation where formula = ?", formula);
    }
}
