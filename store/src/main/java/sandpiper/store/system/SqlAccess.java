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
import java.util.stream.Stream;
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
import sandpiper.engine.port.Storage.Shared;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import sandpiper.store.table.Tables;

/** Users, clients and settings in their tables. */
public final class SqlAccess implements AccessStorage {
    private static final TableStatements USER = new TableStatements("sandpiper_user");
    private static final TableStatements CLIENT = new TableStatements("sandpiper_client");
    private static final TableStatements ROLE = new TableStatements("sandpiper_role");
    private static final TableStatements GRANT = new TableStatements("sandpiper_role_object");
    private static final TableStatements ENTRY = new TableStatements("sandpiper_access_entry");
    private static final TableStatements SETTING = new TableStatements("sandpiper_setting");

    private static final String[] OF_USER = {
        "label", "password_hash", "duties", "roles", "disabled", "temporary"
    };
    private static final String[] OF_CLIENT = {
        "label",
        "secret_hash",
        "grants",
        "created_at",
        "last_used",
        "previous_hash",
        "previous_until",
        "disabled",
        "sealed",
        "previous_sealed",
        "calls_per_minute"
    };
    private static final Statement FIND_USER = USER.selectBy("name", named(OF_USER));
    private static final Statement USERS =
            Sql.statement(USER.select(named(OF_USER)).orderBy(Sql.column("name")));
    private static final Statement PUT_USER = USER.put(List.of("name"), OF_USER);
    private static final Statement REMOVE_USER = USER.delete(Sql.is("name"));
    private static final Statement GRANTS =
            Sql.statement(
                    GRANT.select("role", "object", "actions", "condition", "hidden", "read_only")
                            .orderBy(Sql.column("role"), Sql.column("number")));
    private static final String[] OF_ROLE = {
        "name", "label", "describe", "duties", "services", "package"
    };
    private static final Statement ROLES =
            Sql.statement(ROLE.select(OF_ROLE).orderBy(Sql.column("name")));
    private static final Statement ADD_ROLE = ROLE.insert(OF_ROLE);
    private static final Statement ADD_GRANT =
            GRANT.insert("role", "number", "object", "actions", "condition", "hidden", "read_only");
    private static final Statement REMOVE_GRANTS = GRANT.delete(Sql.is("role"));
    private static final Statement REMOVE_ROLE = ROLE.delete(Sql.is("name"));
    private static final String[] OF_ENTRY = {"at", "actor", "what", "subject", "detail"};
    private static final Statement ADD_ENTRY = ENTRY.insert(OF_ENTRY);
    private static final Statement ENTRIES =
            Sql.statement(
                    ENTRY.select(OF_ENTRY).orderBy(Sql.number("number").desc()).limit(Sql.count()));
    private static final Statement FIND_CLIENT = CLIENT.selectBy("name", named(OF_CLIENT));
    private static final Statement CLIENTS =
            Sql.statement(CLIENT.select(named(OF_CLIENT)).orderBy(Sql.column("name")));
    private static final Statement PUT_CLIENT = CLIENT.put(List.of("name"), OF_CLIENT);
    private static final Statement REMOVE_CLIENT = CLIENT.delete(Sql.is("name"));
    private static final Statement TOUCH_CLIENT =
            CLIENT.update(List.of("last_used"), Sql.is("name"));
    private static final Statement FIND_SETTING = SETTING.selectBy("name", "value");
    private static final Statement PUT_SETTING = SETTING.put(List.of("name"), "value");
    private static final Statement BEGIN_SETTING =
            Sql.statement(
                    Tables.sql()
                            .insertInto(SETTING.table(), Sql.column("name"), Sql.column("value"))
                            .values(Sql.value(), Sql.value())
                            .onConflictDoNothing());

    private static String[] named(String... others) {
        return Stream.concat(Stream.of("name"), Stream.of(others)).toArray(String[]::new);
    }

    private final AtomicLong stamp = new AtomicLong();

    @Override
    public Optional<StoredUser> user(Session session, String name) {
        return SqlSession.of(session).first(FIND_USER, SqlAccess::readUser, name);
    }

    @Override
    public List<StoredUser> users(Session session) {
        return SqlSession.of(session).list(USERS, SqlAccess::readUser);
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

    @Override
    public void changedElsewhere() {
        stamp.incrementAndGet();
    }

    private void noteChange(Transaction transaction) {
        Stamps.raise(SqlSession.of(transaction), Shared.ACCESS);
        SqlSession.of(transaction).afterCommit(stamp::incrementAndGet);
    }

    @Override
    public void putUser(Transaction transaction, StoredUser user) {
        noteChange(transaction);
        SqlSession.of(transaction)
                .run(
                        PUT_USER,
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
        SqlSession.of(transaction).run(REMOVE_USER, name);
    }

    @Override
    public List<Role> roles(Session session) {
        var sql = SqlSession.of(session);
        var objects = new HashMap<String, List<ObjectGrant>>();
        sql.list(GRANTS, row -> Map.entry(row.getString(1), readGrant(row)))
                .forEach(one ->
                        objects.computeIfAbsent(one.getKey(), _ -> new ArrayList<>())
                                .add(one.getValue()));
        return sql.list(
                ROLES,
                row ->
                        new Role(
                                row.getString(1),
                                row.getString(2),
                                row.getString(3).isEmpty() ? null : row.getString(3),
                                TextList.read(row.getString(4)).stream()
                                        .map(Duty::valueOf)
                                        .collect(Collectors.toSet()),
                                TextList.read(row.getString(5)),
                                objects.getOrDefault(row.getString(1), List.of()),
                                row.getString(6)));
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
                ADD_ROLE,
                role.name(),
                role.label(),
                Objects.requireNonNullElse(role.describe(), ""),
                TextList.write(role.duties().stream().map(Duty::name).sorted().toList()),
                TextList.write(role.services()),
                role.from());
        for (int i = 0; i < role.objects().size(); i++) {
            var grant = role.objects().get(i);
            sql.run(
                    ADD_GRANT,
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
        // A release runs without the checks of links, and so without what they take along.
        SqlSession.of(transaction).run(REMOVE_GRANTS, name);
        SqlSession.of(transaction).run(REMOVE_ROLE, name);
    }

    @Override
    public void addEntry(Transaction transaction, AccessEntry entry) {
        SqlSession.of(transaction)
                .run(
                        ADD_ENTRY,
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
                        ENTRIES,
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
        return SqlSession.of(session).first(FIND_CLIENT, SqlAccess::readClient, name);
    }

    @Override
    public List<StoredClient> clients(Session session) {
        return SqlSession.of(session).list(CLIENTS, SqlAccess::readClient);
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
                        PUT_CLIENT,
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
        SqlSession.of(transaction).run(REMOVE_CLIENT, name);
    }

    @Override
    public void touchClient(Transaction transaction, String name, Instant at) {
        SqlSession.of(transaction).run(TOUCH_CLIENT, TemporalType.micros(at), name);
    }

    @Override
    public String setting(Transaction transaction, String name, String otherwise) {
        var sql = SqlSession.of(transaction);
        sql.run(BEGIN_SETTING, name, otherwise);
        return sql.first(FIND_SETTING, row -> row.getString(1), name).orElseThrow();
    }

    @Override
    public void putSetting(Transaction transaction, String name, String value) {
        SqlSession.of(transaction).run(PUT_SETTING, name, value);
        Stamps.raise(SqlSession.of(transaction), Shared.SETTINGS);
    }
}
