package sandpiper.engine.access;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ServiceType;

/**
 * Who asks. What is not granted is denied.
 *
 * @param kind a person or an outside system
 * @param name sign-in name of a user, id of a client
 * @param duties of a user; empty for a client
 * @param grants operations of services
 * @param objects what may be done with records in the console; empty for a client
 */
public record Actor(
        Kind kind,
        String name,
        Set<Duty> duties,
        List<ServiceGrant> grants,
        List<ObjectGrant> objects) {
    /** The service itself, at start and for its own housekeeping. */
    public static final Actor SYSTEM =
            new Actor(Kind.SYSTEM, "system", Set.of(Duty.values()), List.of());

    public Actor {
        duties = Set.copyOf(duties);
        grants = List.copyOf(grants);
        objects = List.copyOf(objects);
    }

    /**
     * Without grants on records.
     *
     * @param grants as {@link ServiceGrant#read} reads them
     */
    public Actor(Kind kind, String name, Set<Duty> duties, List<String> grants) {
        this(kind, name, duties, ServiceGrant.readAll(grants), List.of());
    }

    /** What sort of caller it is. */
    public enum Kind {
        USER,
        CLIENT,
        SYSTEM
    }

    /** What is granted, as a text that is the same as long as that is the same. */
    public String rights() {
        var all = new TreeSet<String>();
        duties.forEach(duty -> all.add(duty.name()));
        grants.forEach(grant -> all.add(grant.toString()));
        objects.forEach(grant ->
                all.add(
                        "%s %s %s %s %s"
                                .formatted(
                                        grant.object(),
                                        new TreeSet<>(grant.actions()),
                                        grant.where(),
                                        grant.hidden(),
                                        grant.readOnly())));
        return UUID.nameUUIDFromBytes(String.join("\n", all).getBytes(StandardCharsets.UTF_8))
                .toString();
    }

    /** Whether a person may do something in the console. */
    public boolean has(Duty duty) {
        return duties.contains(duty);
    }

    /** Whether anything at all is to be done with records. */
    public boolean seesRecords() {
        return has(Duty.RECORDS) || !objects.isEmpty();
    }

    /** Whether every field of every record is seen. */
    public boolean seesEverything() {
        return has(Duty.RECORDS) || objects.stream().anyMatch(ObjectGrant::showsEverything);
    }

    /** What may be done with the records of an object. */
    public ObjectAccess on(String object) {
        return ObjectAccess.of(has(Duty.RECORDS), objects, object);
    }

    /** Whether an operation of a service is granted; see {@link #scope}. */
    public boolean may(String service, String resource, ResourceType.Operation operation) {
        return may(service, resource, operation.name().toLowerCase(Locale.ROOT));
    }

    /** Whether an operation or a call is granted, by its name in grants. */
    public boolean may(String service, String resource, String wanted) {
        return scope(service, resource, wanted).isPresent();
    }

    /** The records an operation or a call reaches, or nothing when it is not granted. */
    public Optional<RecordScope> scope(String service, String resource, String wanted) {
        if (triesServices()) {
            return Optional.of(RecordScope.ALL);
        }
        var where = new ArrayList<@Nullable String>();
        for (var grant : grants) {
            // A condition is about records of a resource; it says nothing of others.
            boolean beside =
                    grant.where() != null
                            && (resource.equals(ServiceType.EVENTS)
                                    || resource.equals(ServiceType.FUNCTIONS));
            if (!beside && grant.covers(service, resource, wanted)) {
                where.add(grant.where());
            }
        }
        return where.isEmpty() ? Optional.empty() : Optional.of(RecordScope.any(where));
    }

    /** Who designs and sees all records may try what is designed, with all of them. */
    private boolean triesServices() {
        return kind != Kind.CLIENT && has(Duty.DESIGN) && has(Duty.RECORDS);
    }

    /** Whether anything at all of a service is granted, so that its contract may be read. */
    public boolean maySee(String service) {
        return (kind != Kind.CLIENT && has(Duty.DESIGN))
                || grants.stream().anyMatch(grant -> grant.isOf(service));
    }
}
