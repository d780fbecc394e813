package sandpiper.engine.accounts;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.access.Role;
import sandpiper.engine.access.ServiceGrant;
import sandpiper.engine.access.StoredUser;
import sandpiper.engine.accounts.AccountException.Reason;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.writer.Transactions;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;

/**
 * People who sign in. Nobody gives, or takes over, a duty that is not his own. Safe for use by many
 * threads.
 */
public final class Users {
    private final AccessStorage storage;
    private final Transactions transactions;
    private final AccessLog log;

    Users(AccessStorage storage, Transactions transactions, AccessLog log) {
        this.storage = storage;
        this.transactions = transactions;
        this.log = log;
    }

    /** All, by name. */
    public List<StoredUser> all() {
        return transactions.read(storage::users);
    }

    public Optional<StoredUser> find(String name) {
        return transactions.read(session -> storage.user(session, name));
    }

    /**
     * The one of a name.
     *
     * @throws AccountException when there is none
     */
    public StoredUser get(String name) {
        return find(name).orElseThrow(() -> unknown(name));
    }

    /** What somebody may do: the own duties, and all that the roles give. */
    public Actor actor(StoredUser user) {
        var services = new ArrayList<String>();
        var objects = new ArrayList<ObjectGrant>();
        var roles =
                user.roles().isEmpty()
                        ? List.<Role>of()
                        : transactions.read(session -> roles(session, user));
        for (var role : roles) {
            services.addAll(role.services());
            objects.addAll(role.objects());
        }
        return new Actor(
                Actor.Kind.USER,
                user.name(),
                duties(user, roles),
                ServiceGrant.readAll(services),
                objects);
    }

    private List<Role> roles(Session session, StoredUser user) {
        return storage.roles(session).stream()
                .filter(role -> user.roles().contains(role.name()))
                .toList();
    }

    private static Set<Duty> duties(StoredUser user, List<Role> roles) {
        var duties = EnumSet.noneOf(Duty.class);
        user.duties().forEach(duty -> duties.add(Duty.valueOf(duty)));
        roles.forEach(role -> duties.addAll(role.duties()));
        return duties;
    }

    /** Makes the first one of an instance, when there is nobody who could. */
    public void addFirst(StoredUser user) {
        transactions.change(transaction -> storage.putUser(transaction, user));
    }

    /**
     * Makes one.
     *
     * @throws AccountException when the name is taken, a role is not known, or somebody would get a
     *     duty that the actor has not
     */
    public void add(Actor actor, StoredUser user) {
        transactions.change(transaction -> {
            if (storage.user(transaction, user.name()).isPresent()) {
                throw new AccountException(
                        Reason.CONFLICT, "There is a user %s already.".formatted(user.name()));
            }
            AccountNames.requireFree(transaction, storage, user.name());
            requireRoles(transaction, user.roles());
            requireHeld(transaction, actor, user);
            storage.putUser(transaction, user);
            log.note(transaction, actor.name(), "user made", user.name(), described(user));
        });
    }

    /**
     * Changes one.
     *
     * @param what in the words of the log
     * @return as it is then
     * @throws AccountException as {@link #add}
     */
    public StoredUser change(
            Actor actor, String name, String what, UnaryOperator<StoredUser> change) {
        return transactions.write(transaction -> {
            var before = storage.user(transaction, name).orElseThrow(() -> unknown(name));
            var after = change.apply(before);
            requireRoles(transaction, after.roles());
            if (!name.equals(actor.name())) {
                requireHeld(transaction, actor, before);
                requireHeld(transaction, actor, after);
            }
            storage.putUser(transaction, after);
            log.note(transaction, actor.name(), what, name, difference(before, after));
            return after;
        });
    }

    /**
     * Takes one away.
     *
     * @throws AccountException when there is none, or it is the actor
     */
    public void remove(Actor actor, String name) {
        if (name.equals(actor.name())) {
            throw new AccountException(Reason.CONFLICT, "You cannot remove yourself.");
        }
        transactions.change(transaction -> {
            if (storage.user(transaction, name).isEmpty()) {
                throw unknown(name);
            }
            storage.removeUser(transaction, name);
            log.note(transaction, actor.name(), "user removed", name, "");
        });
    }

    private void requireRoles(Session session, List<String> roles) {
        var known = storage.roles(session).stream().map(Role::name).toList();
        for (var role : roles) {
            if (!known.contains(role)) {
                throw new AccountException(
                        Reason.INVALID,
                        "There is no role %s.%s"
                                .formatted(
                                        Quoted.of(role),
                                        Nearest.to(role, known)
                                                .map(near -> " Did you mean %s?".formatted(near))
                                                .orElse("")));
            }
        }
    }

    private void requireHeld(Session session, Actor actor, StoredUser user) {
        var duties = EnumSet.noneOf(Duty.class);
        duties.addAll(duties(user, roles(session, user)));
        duties.removeAll(actor.duties());
        if (!duties.isEmpty()) {
            var names = duties.stream().map(duty -> duty.name().toLowerCase(Locale.ROOT)).toList();
            throw new AccountException(
                    Reason.CONFLICT,
                    "%s has or would have a duty that you do not have: %s. Somebody who has it can do this."
                            .formatted(user.name(), String.join(", ", names)));
        }
    }

    private static String described(StoredUser user) {
        var words = new ArrayList<String>();
        if (!user.roles().isEmpty()) {
            words.add("roles " + String.join(", ", user.roles()));
        }
        if (!user.duties().isEmpty()) {
            words.add("duties " + String.join(", ", user.duties()).toLowerCase(Locale.ROOT));
        }
        return String.join("; ", words);
    }

    private static String difference(StoredUser before, StoredUser after) {
        var words = new ArrayList<String>();
        if (!before.passwordHash().equals(after.passwordHash())) {
            words.add("new password");
        }
        if (before.disabled() != after.disabled()) {
            words.add(after.disabled() ? "disabled" : "enabled");
        }
        if (!before.roles().equals(after.roles()) || !before.duties().equals(after.duties())) {
            words.add(described(after));
        }
        return String.join("; ", words);
    }

    private static AccountException unknown(String name) {
        return new AccountException(
                Reason.MISSING, "There is no user %s.".formatted(Quoted.of(name)));
    }
}
