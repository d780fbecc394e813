package sandpiper.engine.port;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Role;

/** Users and clients. Secrets arrive here hashed. */
public interface AccessStorage {
    /**
     * A person who signs in to the console.
     *
     * @param duties what the person may do whatever the roles, such as {@code DESIGN}
     * @param roles the names of the person's roles
     * @param disabled whether the person may do nothing for now
     */
    record StoredUser(
            String name,
            String label,
            String passwordHash,
            List<String> duties,
            List<String> roles,
            boolean disabled) {
        public StoredUser {
            duties = List.copyOf(duties);
            roles = List.copyOf(roles);
        }
    }

    /**
     * A change of who may do what.
     *
     * @param what such as {@code client changed}
     * @param subject the user, role or client it is about
     * @param detail what changed in a few words, never a secret; may be empty
     */
    record AccessEntry(Instant at, String actor, String what, String subject, String detail) {}

    /**
     * An outside system.
     *
     * @param grants operations of services, as {@code berth-desk/stays/create} with {@code *} for
     *     all
     * @param lastUsed {@code null} until it has signed in
     * @param previousHash of the secret before, which goes on being right until {@code
     *     previousUntil}; {@code null} when there is none
     * @param disabled whether it may do nothing for now
     */
    record StoredClient(
            String name,
            String label,
            String secretHash,
            List<String> grants,
            Instant createdAt,
            @Nullable Instant lastUsed,
            @Nullable String previousHash,
            @Nullable Instant previousUntil,
            boolean disabled) {
        public StoredClient {
            grants = List.copyOf(grants);
        }

        /** A client nobody has used yet. */
        public static StoredClient made(
                String name, String label, String secretHash, List<String> grants, Instant at) {
            return new StoredClient(name, label, secretHash, grants, at, null, null, null, false);
        }

        /** With a new secret; the one before is right until then. */
        public StoredClient rotated(String newHash, Instant until) {
            return new StoredClient(
                    name, label, newHash, grants, createdAt, lastUsed, secretHash, until, disabled);
        }

        /** With other words, grants or state; {@code null} leaves one as it is. */
        public StoredClient changed(
                @Nullable String newLabel,
                @Nullable List<String> newGrants,
                @Nullable Boolean nowDisabled) {
            return new StoredClient(
                    name,
                    newLabel == null ? label : newLabel,
                    secretHash,
                    newGrants == null ? grants : newGrants,
                    createdAt,
                    lastUsed,
                    previousHash,
                    previousUntil,
                    nowDisabled == null ? disabled : nowDisabled);
        }
    }

    Optional<StoredUser> user(Session session, String name);

    List<StoredUser> users(Session session);

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
}
