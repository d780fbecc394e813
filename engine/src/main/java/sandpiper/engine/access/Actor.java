package sandpiper.engine.access;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import sandpiper.model.release.ResourceType;

/**
 * Who asks. What is not granted is denied.
 *
 * @param kind a person or an outside system
 * @param name sign-in name of a user, id of a client
 * @param duties of a user; empty for a client
 * @param grants of a client, as {@code service/resource/operation} with {@code *} for all; empty
 *     for a user
 */
public record Actor(Kind kind, String name, Set<Duty> duties, List<String> grants) {
    /** The service itself, at start and for its own housekeeping. */
    public static final Actor SYSTEM =
            new Actor(Kind.SYSTEM, "system", Set.of(Duty.values()), List.of());

    public Actor {
        duties = Set.copyOf(duties);
        grants = List.copyOf(grants);
    }

    /** What sort of caller it is. */
    public enum Kind {
        USER,
        CLIENT,
        SYSTEM
    }

    /** Whether a person may do something in the console. */
    public boolean has(Duty duty) {
        return duties.contains(duty);
    }

    /** Whether an operation of a service is granted. A person who designs may try any service. */
    public boolean may(String service, String resource, ResourceType.Operation operation) {
        return may(service, resource, operation.name().toLowerCase(Locale.ROOT));
    }

    /** Whether an operation or a call is granted, by its name in grants. */
    public boolean may(String service, String resource, String wanted) {
        if (kind != Kind.CLIENT) {
            return has(Duty.DESIGN);
        }
        return grants.stream()
                .anyMatch(grant -> {
                    var parts = grant.split("/", -1);
                    return parts.length == 3
                            && matches(parts[0], service)
                            && matches(parts[1], resource)
                            && matches(parts[2], wanted);
                });
    }

    /** Whether anything at all of a service is granted, so that its contract may be read. */
    public boolean maySee(String service) {
        return kind != Kind.CLIENT
                ? has(Duty.DESIGN)
                : grants.stream().anyMatch(grant -> matches(grant.split("/", -1)[0], service));
    }

    private static boolean matches(String granted, String wanted) {
        return granted.equals("*") || granted.equals(wanted);
    }
}
