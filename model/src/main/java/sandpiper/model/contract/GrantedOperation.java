package sandpiper.model.contract;

import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import sandpiper.model.release.CallType;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ServiceType;

/** What a grant on an operation of services comes to, out of the services there are. */
public sealed interface GrantedOperation {
    /** Stands for every service, resource or operation in a grant. */
    String EVERY = "*";

    /**
     * It is there.
     *
     * @param objects those of its records, which a condition is about; empty where it is about none
     */
    record Known(List<ObjectType> objects) implements GrantedOperation {}

    /**
     * Something that it names is not there.
     *
     * @param kind of what: a service, a resource, an operation or a function
     * @param known the names there are
     */
    record Unknown(String kind, String name, List<String> known) implements GrantedOperation {}

    /** It has a condition, but is about no records: functions, or events. */
    record Unconditional(String resource) implements GrantedOperation {}

    /** Looks one up by its three names. */
    static GrantedOperation of(
            List<ServiceType> services,
            String service,
            String resource,
            String operation,
            boolean conditional) {
        var meant = services.stream().filter(one -> isMeant(service, one.name())).toList();
        if (meant.isEmpty()) {
            return new Unknown(
                    "service", service, services.stream().map(ServiceType::name).toList());
        }
        boolean functions = resource.equals(ServiceType.FUNCTIONS);
        boolean events = resource.equals(ServiceType.EVENTS);
        if ((functions || events) && conditional) {
            return new Unconditional(resource);
        }
        if (functions) {
            return among(
                    "function",
                    operation,
                    meant.stream()
                            .flatMap(one -> one.functions().stream())
                            .map(ObjectFunctionType::name)
                            .toList(),
                    List.of());
        }
        if (events) {
            return among("operation", operation, List.of("read"), List.of());
        }
        var resources =
                meant.stream()
                        .flatMap(one -> one.resources().stream())
                        .filter(one -> isMeant(resource, one.name()))
                        .toList();
        if (resources.isEmpty()) {
            return new Unknown(
                    "resource",
                    resource,
                    meant.stream()
                            .flatMap(one -> one.resources().stream())
                            .map(ResourceType::name)
                            .toList());
        }
        return among(
                "operation",
                operation,
                resources.stream().flatMap(GrantedOperation::operations).distinct().toList(),
                resources.stream().map(ResourceType::object).distinct().toList());
    }

    private static GrantedOperation among(
            String kind, String name, List<String> known, List<ObjectType> objects) {
        return known.stream().anyMatch(one -> isMeant(name, one))
                ? new Known(objects)
                : new Unknown(kind, name, known);
    }

    private static Stream<String> operations(ResourceType resource) {
        return Stream.concat(
                resource.trees().keySet().stream()
                        .map(operation -> operation.name().toLowerCase(Locale.ROOT)),
                resource.calls().stream().map(CallType::name));
    }

    private static boolean isMeant(String granted, String name) {
        return granted.equals(EVERY) || granted.equals(name);
    }
}
