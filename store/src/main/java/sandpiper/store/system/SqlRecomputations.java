package sandpiper.store.system;

import java.util.List;
import sandpiper.engine.port.RecomputationStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.store.sql.SqlSession;

/** Formulas to be worked out again, in their table. */
public final class SqlRecomputations implements RecomputationStorage {
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
    public void remove(Transaction transaction, String formula) {
        SqlSession.of(transaction)
                .run("delete from sandpiper_recomputation where formula = ?", formula);
    }
}
