package sandpiper.engine.definition;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import sandpiper.engine.access.AccessEntry;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.access.Role;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.definition.DeliveredRole;
import sandpiper.model.release.Release;

/**
 * Roles that come with packages. They are given to people like those that were made in the
 * instance, and follow the release that is live.
 */
record RolesOfPackages(AccessStorage access, Clock clock) {
    /** Roles of the instance in whose place one of a package would come, a sentence each. */
    List<String> obstacles(Session session, Release release) {
        var brought = brought(release);
        return access.roles(session).stream()
                .filter(role -> role.from() == null)
                .map(role -> brought.get(role.name()))
                .filter(Objects::nonNull)
                .map(role ->
                        "The package %s brings a role %s, and there is one that was made in this instance; remove that or give the one of the package another name."
                                .formatted(role.from(), role.name()))
                .toList();
    }

    /** Roles that people keep although no package brings them any more, a sentence each. */
    List<String> left(Session session, Release release) {
        var brought = brought(release);
        var sentences = new ArrayList<String>();
        for (var role : access.roles(session)) {
            int holders = holders(session, role.name()).size();
            if (role.from() != null && !brought.containsKey(role.name()) && holders > 0) {
                sentences.add(
                        "Role %s no longer comes with a package; %s it as it is."
                                .formatted(
                                        role.name(),
                                        holders == 1
                                                ? "one person keeps"
                                                : "%d people keep".formatted(holders)));
            }
        }
        return sentences;
    }

    /** Brings roles in, gives them other grants, and takes those away that nobody has. */
    void apply(Transaction transaction, Release release, Actor by) {
        var brought = brought(release);
        for (var known : access.roles(transaction)) {
            if (known.from() == null) {
                continue;
            }
            var now = brought.remove(known.name());
            if (now == null) {
                drop(transaction, known, by);
            } else if (!now.equals(known)) {
                put(transaction, now, by);
            }
        }
        brought.values().forEach(role -> put(transaction, role, by));
    }

    private void put(Transaction transaction, Role role, Actor by) {
        access.putRole(transaction, role);
        note(transaction, "role set", role.name(), "by the package " + role.from(), by);
    }

    /** Who has it keeps it, as one of the instance. */
    private void drop(Transaction transaction, Role role, Actor by) {
        if (holders(transaction, role.name()).isEmpty()) {
            access.removeRole(transaction, role.name());
            note(transaction, "role removed", role.name(), "with the package " + role.from(), by);
        } else {
            access.putRole(
                    transaction,
                    new Role(
                            role.name(),
                            role.label(),
                            role.describe(),
                            role.duties(),
                            role.services(),
                            role.objects(),
                            null));
        }
    }

    private void note(Transaction transaction, String what, String name, String detail, Actor by) {
        access.addEntry(
                transaction, new AccessEntry(clock.instant(), by.name(), what, name, detail));
    }

    private List<String> holders(Session session, String role) {
        return access.users(session).stream()
                .filter(user -> user.roles().contains(role))
                .map(user -> user.name())
                .toList();
    }

    private static Map<String, Role> brought(Release release) {
        var roles = new TreeMap<String, Role>();
        release.brought().roles().forEach(role -> roles.put(role.name(), role(role)));
        return roles;
    }

    private static Role role(DeliveredRole role) {
        return new Role(
                role.name(),
                role.label(),
                role.describe(),
                Set.of(),
                role.services(),
                role.objects().stream().map(RolesOfPackages::grant).toList(),
                role.packageName());
    }

    private static ObjectGrant grant(DeliveredRole.Grant grant) {
        return new ObjectGrant(
                grant.object(),
                grant.actions().stream()
                        .map(action -> ObjectGrant.Action.valueOf(action.toUpperCase(Locale.ROOT)))
                        .collect(Collectors.toSet()),
                grant.where(),
                grant.hidden(),
                grant.readOnly());
    }
}
