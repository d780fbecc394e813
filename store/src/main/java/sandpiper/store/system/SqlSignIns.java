package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import sandpiper.engine.access.CountedTries.Tries;
import sandpiper.engine.access.OpenSession;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.SignInStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;

/** Sessions and counts of tries in their tables. */
public final class SqlSignIns implements SignInStorage {
    private static final TableStatements SESSION = new TableStatements("sandpiper_session");
    private static final TableStatements TRY = new TableStatements("sandpiper_try");
    private static final String[] OF_SESSION = {
        "id", "owner", "stamp", "address", "agent", "begun", "used"
    };
    private static final Statement ADD =
            SESSION.insert("id", "owner", "stamp", "address", "agent", "begun", "used", "hash");
    private static final Statement FIND = SESSION.selectBy("hash", OF_SESSION);
    private static final Statement OF_OWNER =
            Sql.statement(
                    SESSION.select(OF_SESSION)
                            .where(Sql.is("owner"))
                            .orderBy(Sql.number("used").desc()));
    private static final Statement TOUCH = SESSION.update(List.of("used"), Sql.is("hash"));
    private static final Statement REMOVE = SESSION.delete(Sql.is("hash"));
    private static final Statement REMOVE_OWN = SESSION.delete(Sql.is("owner").and(Sql.is("id")));
    private static final Statement FORGET =
            SESSION.delete(
                    Sql.number("begun").lt(Sql.count()).or(Sql.number("used").lt(Sql.count())));
    private static final Statement FIND_TRIES = TRY.selectBy("key", "count", "last");
    private static final Statement PUT_TRIES = TRY.put(List.of("key"), "count", "last");
    private static final Statement REMOVE_TRIES = TRY.delete(Sql.is("key"));
    private static final Statement FORGET_TRIES = TRY.delete(Sql.number("last").lt(Sql.count()));

    @Override
    public void addSession(Transaction transaction, String hash, OpenSession session) {
        SqlSession.of(transaction)
                .run(
                        ADD,
                        session.id(),
                        session.user(),
                        session.stamp(),
                        session.address(),
                        session.agent(),
                        TemporalType.micros(session.begun()),
                        TemporalType.micros(session.used()),
                        hash);
    }

    private static OpenSession read(ResultSet row) throws SQLException {
        return new OpenSession(
                row.getString(1),
                row.getString(2),
                row.getString(3),
                row.getString(4),
                row.getString(5),
                TemporalType.instant(row.getLong(6)),
                TemporalType.instant(row.getLong(7)));
    }

    @Override
    public Optional<OpenSession> session(Session session, String hash) {
        return SqlSession.of(session).first(FIND, SqlSignIns::read, hash);
    }

    @Override
    public List<OpenSession> sessionsOf(Session session, String user) {
        return SqlSession.of(session).list(OF_OWNER, SqlSignIns::read, user);
    }

    @Override
    public void touchSession(Transaction transaction, String hash, Instant used) {
        SqlSession.of(transaction).run(TOUCH, TemporalType.micros(used), hash);
    }

    @Override
    public void removeSession(Transaction transaction, String hash) {
        SqlSession.of(transaction).run(REMOVE, hash);
    }

    @Override
    public boolean removeSession(Transaction transaction, String user, String id) {
        return SqlSession.of(transaction).run(REMOVE_OWN, user, id) > 0;
    }

    @Override
    public void forgetSessions(Transaction transaction, Instant begunBefore, Instant usedBefore) {
        SqlSession.of(transaction)
                .run(FORGET, TemporalType.micros(begunBefore), TemporalType.micros(usedBefore));
    }

    @Override
    public Optional<Tries> tries(Session session, String key) {
        return SqlSession.of(session)
                .first(
                        FIND_TRIES,
                        row -> new Tries(row.getInt(1), TemporalType.instant(row.getLong(2))),
                        key);
    }

    @Override
    public void putTries(Transaction transaction, String key, Tries tries) {
        SqlSession.of(transaction)
                .run(PUT_TRIES, key, tries.count(), TemporalType.micros(tries.last()));
    }

    @Override
    public void removeTries(Transaction transaction, String key) {
        SqlSession.of(transaction).run(REMOVE_TRIES, key);
    }

    @Override
    public void forgetTries(Transaction transaction, Instant lastBefore) {
        SqlSession.of(transaction).run(FORGET_TRIES, TemporalType.micros(lastBefore));
    }
}
