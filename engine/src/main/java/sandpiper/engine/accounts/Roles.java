package sandpiper.engine.accounts;

import java.util.ArrayList;
import java.util.List;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Role;
import sandpiper.engine.access.StoredUser;
import sandpiper.engine.accounts.AccountException.Reason;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.writer.Transactions;

/** Named sets of grants, which people are given. Safe for use by many threads. */
public final class Roles {
    private final AccessStorage storage;
    private final Transactions transactions;
    private final AccessLog log;

    Roles(AccessStorage storage, Transactions transactions, AccessLog log) {
        this.storage = storage;
        this.transactions = transactions;
        this.log = log;
    }

    /** A role with the names of the people who have it. */
    public record Held(Role role, List<String> users) {}

    /** All, by name. */
    public List<Held> all() {
        return transactions.read(session -> {
            var users = storage.users(session);
            return storage.roles(session).stream()
                    .map(role -> new Held(role, holders(users, role.name())))
                    .toList();
        });
    }

    private static List<String> holders(List<StoredUser> users, String role) {
        return users.stream()
                .filter(user -> user.roles().contains(role))
                .map(user -> user.name())
                .toList();
    }

    /**
     * Makes a role, or gives it other grants.
     *
     * @throws AccountException when it comes with a package
     */
    public void put(Actor actor, Role role) {
        transactions.change(transaction -> {
            requireOwn(transaction, role.name());
            storage.putRole(transaction, role);
            log.note(transaction, actor.name(), "role set", role.name(), described(role));
        });
    }

    /**
     * Takes a role away that nobody has.
     *
     * @throws AccountException when somebody has it, or it comes with a package
     */
    public void remove(Actor actor, String name) {
        transactions.change(transaction -> {
            requireOwn(transaction, name);
            var holders = holders(storage.users(transaction), name);
            if (!holders.isEmpty()) {
                throw new AccountException(
                        Reason.CONFLICT,
                        "The role is held by %s; take it from them first."
                                .formatted(String.join(", ", holders)));
            }
            storage.removeRole(transaction, name);
            log.note(transaction, actor.name(), "role removed", name, "");
        });
    }

    private void requireOwn(Session session, String name) {
        storage.roles(session).stream()
                .filter(role -> role.name().equals(name) && role.from() != null)
                .findFirst()
                .ifPresent(role -> {
                    throw new AccountException(
                            Reason.CONFLICT,
                            "The role %s comes with the package %s; change it there and release that."
                                    .formatted(name, role.from()));
                });
    }

    private static String described(Role role) {
        var words = new ArrayList<String>();
        role.duties().stream().sorted().forEach(duty -> words.add(duty.name()));
        words.addAll(role.services());
        for (var grant : role.objects()) {
            words.add(
                    "%s %s%s"
                            .formatted(
                                    grant.object(),
                                    grant.actions().stream().sorted().toList(),
                                    grant.where() == null ? "" : " where " + grant.where()));
        }
        return String.join("; ", words);
    }
}
