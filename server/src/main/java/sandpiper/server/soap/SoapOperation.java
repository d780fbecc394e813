package sandpiper.server.soap;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.model.contract.ResourceNames;
import sandpiper.model.release.CallType;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;

/**
 * One operation of a service over SOAP. Its name is that of the element that wraps what is sent.
 *
 * @param shown the resource it is about, or {@code null} when it is about none
 * @param call what is called, when the kind is {@link Kind#CALL} or {@link Kind#FUNCTION}
 */
record SoapOperation(
        Kind kind, String name, @Nullable ResourceType shown, @Nullable CallType call) {
    /** What is done. */
    enum Kind {
        CREATE,
        GET,
        UPDATE,
        SAVE,
        REMOVE,
        FIND,
        /** A transition or function on a record. */
        CALL,
        /** A function on no record. */
        FUNCTION
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
            for (var call : resource.calls()) {
                all.add(
                        new SoapOperation(
                                Kind.CALL,
                                ResourceNames.joined(call.name()) + one,
                                resource,
                                call));
            }
        }
        for (var function : service.functions()) {
            all.add(
                    new SoapOperation(
                            Kind.FUNCTION,
                            ResourceNames.joined(function.name()),
                            null,
                            new CallType.OfFunction(function.definition())));
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

    /** The resource, for an operation that is about one. */
    ResourceType resource() {
        return Objects.requireNonNull(shown);
    }

    /** What is called, for an operation that calls something. */
    CallType called() {
        return Objects.requireNonNull(call);
    }

    /** Where in a service its grants stand. */
    String grantedAs() {
        return shown == null ? ServiceType.FUNCTIONS : shown.name();
    }

    /** The element that holds a record: {@code stay}. */
    String record() {
        return ResourceNames.small(ResourceNames.one(resource()));
    }

    /** One sentence for the contract. */
    String describe() {
        if (kind == Kind.FUNCTION) {
            return describeCall();
        }
        var object = resource().object();
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
            case CALL, FUNCTION -> describeCall();
        };
    }

    private String describeCall() {
        var described = called().describe();
        return described == null ? called().label() + "." : described;
    }
}
