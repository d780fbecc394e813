package sandpiper.engine.access;

import java.util.List;

/**
 * A person who signs in to the console.
 *
 * @param duties what the person may do whatever the roles, such as {@code DESIGN}
 * @param roles the names of the person's roles
 * @param disabled whether the person may do nothing for now
 */
public record StoredUser(
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
