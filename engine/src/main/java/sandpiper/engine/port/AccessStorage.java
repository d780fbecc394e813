package sandpiper.engine.port;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Role;

/** Users and clients. Secrets arrive here hashed, and sealed where they have to be opened. */
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
            boolean disabled,
            boolean temporary) {
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
     * What is kept of a secret.
     *
     * @param sealed the secret itself, so that only this instance can open it, for a client that
     *     proves with digests that it knows it; {@code null} for all others
     */
    record StoredSecret(String hash, @Nullable String sealed) {}

    /**
     * An outside system.
     *
     * @param grants operations of services, as {@code berth-desk/stays/create} with {@code *} for
     *     all
     * @param lastUsed {@code null} until it has signed in
     * @param previous the secret before, which goes on being right until {@code previousUntil};
     *     {@code null} when there is none
     * @param disabled whether it may do nothing for now
     * @param callsPerMinute how often it may call; 0 for what is usual in this instance
     */
    record StoredClient(
            String name,
            String label,
            StoredSecret secret,
            List<String> grants,
            Instant createdAt,
            @Nullable Instant lastUsed,
            @Nullable StoredSecret previous,
            @Nullable Instant previousUntil,
            boolean disabled,
            int callsPerMinute) {
        public StoredClient {
            grants = List.copyOf(grants);
        }

        /** A client nobody has used yet. */
        public static StoredClient made(
                String name,
                String label,
                StoredSecret secret,
                List<String> grants,
                Instant at,
                int callsPerMinute) {
            return new StoredClient(
                    name, label, secret, grants, at, null, null, null, false, callsPerMinute);
        }

        /** With a new secret; the one before is right until then. */
        public StoredClient rotated(StoredSecret now, Instant until) {
            return new StoredClient(
                    name,
                    label,
                    now,
                    grants,
                    createdAt,
                    lastUsed,
                    secret,
                    until,
                    disabled,
                    callsPerMinute);
        }

        /** With other words, grants, state or limit; {@code null} leaves one as it is. */
        public StoredClient changed(
                @Nullable String newLabel,
                @Nullable List<String> newGrants,
                @Nullable Boolean nowDisabled,
                @Nullable Integer newCallsPerMinute) {
            return new StoredClient(
                    name,
                    newLabel == null ? label : newLabel,
                    secret,
                    newGrants == null ? grants : newGrants,
                    createdAt,
                    lastUsed,
                    previous,
                    previousUntil,
                    nowDisabled == null ? disabled : nowDisabled,
                    newCallsPerMinute == null ? callsPerMinute : newCallsPerMinute);
        }
    }

    Optional<StoredUser> user(Session session, String name);

    List<StoredUser> users(Session session);

    /** Another number than before whenever users, roles or clients were changed. */
    long stamp();

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
