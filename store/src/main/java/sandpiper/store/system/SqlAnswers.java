package sandpiper.store.system;

import java.time.Instant;
import java.util.Optional;
import sandpiper.engine.port.AnswerStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;

/** Kept answers in their table. */
public final class SqlAnswers implements AnswerStorage {
    @Override
    public Optional<StoredAnswer> find(Session session, String actor, String key) {
        return SqlSession.of(session)
                .first(
                        "select fingerprint, content, rights from sandpiper_answer where actor = ?"
                                + " and key = ?",
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
                        "insert into sandpiper_answer (actor, key, fingerprint, content, rights,"
                                + " at) values (?, ?, ?, ?, ?, ?)",
                        actor,
                        key,
                        answer.fingerprint(),
                        answer.text(),
                        answer.rights(),
                        TemporalType.micros(at));
    }

    @Override
    public void forgetBefore(Transaction transaction, Instant moment) {
        SqlSession.of(transaction)
                .run("delete from sandpiper_answer where at < ?", TemporalType.micros(moment));
    }
}
