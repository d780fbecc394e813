package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;

/** Users, clients and settings in their tables. */
public final class SqlAccess implements AccessStorage {
    private static final String USER =
            "select name, label, password_hash, duties from sandpiper_user";
    private static final String CLIENT =
            "select name, label, secret_hash, grants, created_at, last_used, previous_hash,"
                    + " previous_until, disabled from sandpiper_client";

    @Override
    public Optional<StoredUser> user(Session session, String name) {
        return SqlSession.of(session).first(USER + " where name = ?", SqlAccess::readUser, name);
    }

    @Override
    public List<StoredUser> users(Session session) {
        return SqlSession.of(session).list(USER + " order by name", SqlAccess::readUser);
    }

    private static StoredUser readUser(ResultSet row) throws SQLException {
        return new StoredUser(
                row.getString(1),
                row.getString(2),
                row.getString(3),
                TextList.read(row.getString(4)));
    }

    @Override
    public void putUser(Transaction transaction, StoredUser user) {
        SqlSession.of(transaction)
                .run(
                        "insert or replace into sandpiper_user (name, label, password_hash, duties)"
                                + " values (?, ?, ?, ?)",
                        user.name(),
                        user.label(),
                        user.passwordHash(),
                        TextList.write(user.duties()));
    }

    @Override
    public Optional<StoredClient> client(Session session, String name) {
        return SqlSession.of(session)
                .first(CLIENT + " where name = ?", SqlAccess::readClient, name);
    }

    @Override
    public List<StoredClient> clients(Session session) {
        return SqlSession.of(session).list(CLIENT + " order by name", SqlAccess::readClient);
    }

    private static StoredClient readClient(ResultSet row) throws SQLException {
        return new StoredClient(
                row.getString(1),
                row.getString(2),
                row.getString(3),
                TextList.read(row.getString(4)),
                TemporalType.instant(row.getLong(5)),
                moment(row.getLong(6)),
                row.getString(7),
                moment(row.getLong(8)),
                row.getLong(9) != 0);
    }

    /** A column that was never filled reads as 0. */
    private static @Nullable Instant moment(long micros) {
        return micros == 0 ? null : TemporalType.instant(micros);
    }

    private static @Nullable Long micros(@Nullable Instant moment) {
        return moment == null ? null : TemporalType.micros(moment);
    }

    @Override
    public void putClient(Transaction transaction, StoredClient client) {
        SqlSession.of(transaction)
                .run(
                        "insert or replace into sandpiper_client (name, label, secret_hash, grants,"
                                + " created_at, last_used, previous_hash, previous_until, disabled)"
                                + " values (?, ?, ?, ?, ?, ?, ?, ?, ?)",
                        client.name(),
                        client.label(),
                        client.secretHash(),
                        TextList.write(client.grants()),
                        TemporalType.micros(client.createdAt()),
                        micros(client.lastUsed()),
                        client.previousHash(),
                        micros(client.previousUntil()),
                        client.disabled());
    }

    @Override
    public void removeClient(Transaction transaction, String name) {
        SqlSession.of(transaction).run("delete from sandpiper_client where name = ?", name);
    }

    @Override
    public void touchClient(Transaction transaction, String name, Instant at) {
        SqlSession.of(transaction)
                .run(
                        "update sandpiper_client set last_used = ? where name = ?",
                        TemporalType.micros(at),
                        name);
    }

    @Override
    public String setting(Transaction transaction, String name, String otherwise) {
        var sql = SqlSession.of(transaction);
        sql.run(
                "insert or ignore into sandpiper_setting (name, value) values (?, ?)",
                name,
                otherwise);
        return sql.first(
                        "select value from sandpiper_setting where name = ?",
                        row -> row.getString(1),
                        name)
                .orElseThrow();
    }
}
