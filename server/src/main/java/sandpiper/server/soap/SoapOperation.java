package sandpiper.server.soap;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Lifecycle;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;
import sandpiper.server.service.ResourceNames;

/**
 * One operation of a service over SOAP. Its name is that of the element that wraps what is sent.
 *
 * @param transition what is taken, when the kind is {@link Kind#TRANSIT}
 */
record SoapOperation(
        Kind kind, String name, ResourceType resource, Lifecycle.@Nullable Transition transition) {
    /** What is done. */
    enum Kind {
        CREATE,
        GET,
        UPDATE,
        SAVE,
        REMOVE,
        FIND,
        TRANSIT
    }

    /** All operations of a service, in the order of its resources. */
    static List<SoapOperation> of(ServiceType service) {
        var all = new ArrayList<SoapOperation>();
        for (var resource : service.resources()) {
            var one = ResourceNames.one(resource);
            boolean creates = resource.offers(Operation.CREATE);
            boolean updates = resource.offers(Operation.UPDATE);
            add(all, creates, Kind.CREATE, "Create" + one, resource);
            add(all, resource.offers(Operation.READ), Kind.GET, "Get" + one, resource);
            add(all, updates, Kind.UPDATE, "Update" + one, resource);
            boolean keyed = !resource.object().key().isEmpty();
            add(all, creates && updates && keyed, Kind.SAVE, "Save" + one, resource);
            add(
                    all,
                    resource.offers(Operation.QUERY),
                    Kind.FIND,
                    "Find" + ResourceNames.many(resource),
                    resource);
            add(all, resource.offers(Operation.REMOVE), Kind.REMOVE, "Remove" + one, resource);
            for (var transition : resource.transitions()) {
                all.add(
                        new SoapOperation(
                                Kind.TRANSIT,
                                ResourceNames.joined(transition.name()) + one,
                                resource,
                                transition));
            }
        }
        return all;
    }

    private static void add(
            List<SoapOperation> all,
            boolean offered,
            Kind kind,
            String name,
            ResourceType resource) {
        if (offered) {
            all.add(new SoapOperation(kind, name, resource, null));
        }
    }

    /** The operation a service has by this name, or nothing. */
    static Optional<SoapOperation> find(ServiceType service, String name) {
        return of(service).stream().filter(one -> one.name().equals(name)).findFirst();
    }

    /** The element that holds a record: {@code stay}. */
    String record() {
        return ResourceNames.small(ResourceNames.one(resource));
    }

    /** One sentence for the contract. */
    String describe() {
        var object = resource.object();
        return switch (kind) {
            case CREATE -> "Creates a %s.".formatted(object.label());
            case GET -> "Gives one %s.".formatted(object.label());
            case UPDATE ->
                    "Changes what is given of a %s. An element that is nil makes a field empty; one that is absent leaves it."
                            .formatted(object.label());
            case SAVE ->
                    "Changes the %s that has the key, or creates it.".formatted(object.label());
            case REMOVE -> "Takes a %s out of use.".formatted(object.label());
            case FIND -> "Finds %s, a page at a time.".formatted(object.plural());
            case TRANSIT -> describeTransition();
        };
    }

    private String describeTransition() {
        var described = transition == null ? null : transition.describe();
        return described == null
                ? "%s a %s."
                        .formatted(
                                transition == null ? "" : transition.label(),
                                resource.object().label())
                : described;
    }
}
