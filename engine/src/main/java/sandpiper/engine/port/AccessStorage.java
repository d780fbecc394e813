package sandpiper.engine.port;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import sandpiper.engine.access.AccessEntry;
import sandpiper.engine.access.Role;
import sandpiper.engine.access.StoredClient;
import sandpiper.engine.access.StoredUser;

/** Users and clients. Secrets arrive here hashed, and sealed where they have to be opened. */
public interface AccessStorage {
    Optional<StoredUser> user(Session session, String name);

    List<StoredUser> users(Session session);

    /** Another number than before whenever users, roles or clients were changed. */
    long stamp();

    /** Another process changed users, roles or clients: the {@link #stamp} becomes another. */
    void changedElsewhere();

    void putUser(Transaction transaction, StoredUser user);

    void removeUser(Transaction transaction, String name);

    List<Role> roles(Session session);

    void putRole(Transaction transaction, Role role);

    void removeRole(Transaction transaction, String name);

    void addEntry(Transaction transaction, AccessEntry entry);

    /** What was changed of late, newest first. */
    List<AccessEntry> entries(Session session, int limit);

    Optional<StoredClient> client(Session session, String name);

    List<StoredClient> clients(Session session);

    void putClient(Transaction transaction, StoredClient client);

    void removeClient(Transaction transaction, String name);

    void touchClient(Transaction transaction, String name, Instant at);

    /**
     * A value that belongs to this instance, such as its cursor key; made and kept when there is
     * none.
     */
    String setting(Transaction transaction, String name, String otherwise);

    /** Keeps a setting, in the place of what it was. */
    void putSetting(Transaction transaction, String name, String value);
}
