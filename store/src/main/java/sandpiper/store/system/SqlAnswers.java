package sandpiper.store.system;

import java.time.Instant;
import java.util.Optional;
import sandpiper.engine.port.AnswerStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;

/** Kept answers in their table. */
public final class SqlAnswers implements AnswerStorage {
    private static final TableStatements TABLE = new TableStatements("sandpiper_answer");
    private static final Statement FIND =
            Sql.statement(
                    TABLE.select("fingerprint", "content", "rights")
                            .where(Sql.is("actor"), Sql.is("key")));
    private static final Statement ADD =
            TABLE.insert("actor", "key", "fingerprint", "content", "rights", "at");
    private static final Statement FORGET = TABLE.delete(Sql.column("at").lt(Sql.value()));

    @Override
    public Optional<StoredAnswer> find(Session session, String actor, String key) {
        return SqlSession.of(session)
                .first(
                        FIND,
                        row ->
                                new StoredAnswer(
                                        row.getString(1), row.getString(2), row.getString(3)),
                        actor,
                        key);
    }

    @Override
    public void put(
            Transaction transaction, String actor, String key, StoredAnswer answer, Instant at) {
        SqlSession.of(transaction)
                .run(
                        ADD,
                        actor,
                        key,
                        answer.fingerprint(),
                        answer.text(),
                        answer.rights(),
                        TemporalType.micros(at));
    }

    @Override
    public void forgetBefore(Transaction transaction, Instant moment) {
        SqlSession.of(transaction).run(FORGET, TemporalType.micros(moment));
    }
}
