package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.AccessEntry;
import sandpiper.engine.access.Duty;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.access.Role;
import sandpiper.engine.access.StoredClient;
import sandpiper.engine.access.StoredSecret;
import sandpiper.engine.access.StoredUser;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;

/** Users, clients and settings in their tables. */
public final class SqlAccess implements AccessStorage {
    private final AtomicLong stamp = new AtomicLong();
    private static final String USER =
            "select name, label, password_hash, duties, roles, disabled, temporary"
                    + " from sandpiper_user";
    private static final String CLIENT =
            "select name, label, secret_hash, grants, created_at, last_used, previous_hash,"
                    + " previous_until, disabled, sealed, previous_sealed, calls_per_minute"
                    + " from sandpiper_client";

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
                TextList.read(row.getString(4)),
                TextList.read(row.getString(5)),
                row.getLong(6) != 0,
                row.getLong(7) != 0);
    }

    @Override
    public long stamp() {
        return stamp.get();
    }

    private void noteChange(Transaction transaction) {
        SqlSession.of(transaction).afterCommit(stamp::incrementAndGet);
    }

    @Override
    public void putUser(Transaction transaction, StoredUser user) {
        noteChange(transaction);
        SqlSession.of(transaction)
                .run(
                        "insert or replace into sandpiper_user (name, label, password_hash, duties,"
                                + " roles, disabled, temporary) values (?, ?, ?, ?, ?, ?, ?)",
                        user.name(),
                        user.label(),
                        user.passwordHash(),
                        TextList.write(user.duties()),
                        TextList.write(user.roles()),
                        user.disabled(),
                        user.temporary());
    }

    @Override
    public void removeUser(Transaction transaction, String name) {
        noteChange(transaction);
        SqlSession.of(transaction).run("delete from sandpiper_user where name = ?", name);
    }

    @Override
    public List<Role> roles(Session session) {
        var sql = SqlSession.of(session);
        var objects = new HashMap<String, List<ObjectGrant>>();
        sql.list(
                        "select role, object, actions, condition, hidden, read_only from"
                                + " sandpiper_role_object order by role, number",
                        row -> Map.entry(row.getString(1), readGrant(row)))
                .forEach(one ->
                        objects.computeIfAbsent(one.getKey(), _ -> new ArrayList<>())
                                .add(one.getValue()));
        return sql.list(
                "select name, label, describe, duties, services from sandpiper_role order by name",
                row ->
                        new Role(
                                row.getString(1),
                                row.getString(2),
                                row.getString(3).isEmpty() ? null : row.getString(3),
                                TextList.read(row.getString(4)).stream()
                                        .map(Duty::valueOf)
                                        .collect(Collectors.toSet()),
                                TextList.read(row.getString(5)),
                                objects.getOrDefault(row.getString(1), List.of())));
    }

    private static ObjectGrant readGrant(ResultSet row) throws SQLException {
        return new ObjectGrant(
                row.getString(2),
                TextList.read(row.getString(3)).stream()
                        .map(ObjectGrant.Action::valueOf)
                        .collect(Collectors.toSet()),
                row.getString(4).isEmpty() ? null : row.getString(4),
                TextList.read(row.getString(5)),
                TextList.read(row.getString(6)));
    }

    @Override
    public void putRole(Transaction transaction, Role role) {
        noteChange(transaction);
        removeRole(transaction, role.name());
        var sql = SqlSession.of(transaction);
        sql.run(
                "insert into sandpiper_role (name, label, describe, duties, services) values (?, ?,"
                        + " ?, ?, ?)",
                role.name(),
                role.label(),
                Objects.requireNonNullElse(role.describe(), ""),
                TextList.write(role.duties().stream().map(Duty::name).sorted().toList()),
                TextList.write(role.services()));
        for (int i = 0; i < role.objects().size(); i++) {
            var grant = role.objects().get(i);
            sql.run(
                    "insert into sandpiper_role_object (role, number, object, actions, condition,"
                            + " hidden, read_only) values (?, ?, ?, ?, ?, ?, ?)",
                    role.name(),
                    i,
                    grant.object(),
                    TextList.write(grant.actions().stream().map(Enum::name).sorted().toList()),
                    Objects.requireNonNullElse(grant.where(), ""),
                    TextList.write(grant.hidden()),
                    TextList.write(grant.readOnly()));
        }
    }

    @Override
    public void removeRole(Transaction transaction, String name) {
        noteChange(transaction);
        SqlSession.of(transaction).run("delete from sandpiper_role where name = ?", name);
    }

    @Override
    public void addEntry(Transaction transaction, AccessEntry entry) {
        SqlSession.of(transaction)
                .run(
                        "insert into sandpiper_access_entry (at, actor, what, subject, detail)"
                                + " values (?, ?, ?, ?, ?)",
                        TemporalType.micros(entry.at()),
                        entry.actor(),
                        entry.what(),
                        entry.subject(),
                        entry.detail());
    }

    @Override
    public List<AccessEntry> entries(Session session, int limit) {
        return SqlSession.of(session)
                .list(
                        "select at, actor, what, subject, detail from sandpiper_access_entry order"
                                + " by number desc limit ?",
                        row ->
                                new AccessEntry(
                                        TemporalType.instant(row.getLong(1)),
                                        row.getString(2),
                                        row.getString(3),
                                        row.getString(4),
                                        row.getString(5)),
                        (long) limit);
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
        var previous = row.getString(7);
        return new StoredClient(
                row.getString(1),
                row.getString(2),
                new StoredSecret(row.getString(3), row.getString(10)),
                TextList.read(row.getString(4)),
                TemporalType.instant(row.getLong(5)),
                moment(row.getLong(6)),
                previous == null ? null : new StoredSecret(previous, row.getString(11)),
                moment(row.getLong(8)),
                row.getLong(9) != 0,
                row.getInt(12));
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
        noteChange(transaction);
        var previous = client.previous();
        SqlSession.of(transaction)
                .run(
                        "insert or replace into sandpiper_client (name, label, secret_hash, grants,"
                                + " created_at, last_used, previous_hash, previous_until, disabled,"
                                + " sealed, previous_sealed, calls_per_minute) values (?, ?, ?, ?,"
                                + " ?, ?, ?, ?, ?, ?, ?, ?)",
                        client.name(),
                        client.label(),
                        client.secret().hash(),
                        TextList.write(client.grants()),
                        TemporalType.micros(client.createdAt()),
                        micros(client.lastUsed()),
                        previous == null ? null : previous.hash(),
                        micros(client.previousUntil()),
                        client.disabled(),
                        client.secret().sealed(),
                        previous == null ? null : previous.sealed(),
                        client.callsPerMinute());
    }

    @Override
    public void removeClient(Transaction transaction, String name) {
        noteChange(transaction);
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

    @Override
    public void putSetting(Transaction transaction, String name, String value) {
        SqlSession.of(transaction)
                .run(
                        "insert into sandpiper_setting (name, value) values (?, ?)"
                                + " on conflict (name) do update set value = excluded.value",
                        name,
                        value);
    }
}
