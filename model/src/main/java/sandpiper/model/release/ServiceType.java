package sandpiper.model.release;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.model.Names;

/**
 * A published service.
 *
 * @param describe what it is for, or {@code null}
 * @param functions functions of objects as a whole that can be called
 * @param events that it publishes
 */
public record ServiceType(
        String name,
        int version,
        String packageName,
        String label,
        @Nullable String describe,
        List<String> protocols,
        List<ResourceType> resources,
        List<ObjectFunctionType> functions,
        List<EventType> events) {
    public ServiceType {
        protocols = List.copyOf(protocols);
        resources = List.copyOf(resources);
        functions = List.copyOf(functions);
        events = List.copyOf(events);
    }

    /** The resource of a name, or nothing. */
    public Optional<ResourceType> resource(String resourceName) {
        return resources.stream()
                .filter(resource -> resource.name().equals(resourceName))
                .findFirst();
    }

    /** What stands in the place of a resource in grants on functions and in what was called. */
    public static final String FUNCTIONS = "functions";

    /** What stands in the place of a resource in grants on events. */
    public static final String EVENTS = "events";

    /** The function of a name in addresses ({@code quote}), or nothing. */
    public Optional<ObjectFunctionType> function(String address) {
        return functions.stream()
                .filter(one -> Names.address(one.name()).equals(address))
                .findFirst();
    }

    /** Whether it publishes an event. */
    public boolean publishes(String event) {
        return events.stream().anyMatch(one -> one.name().equals(event));
    }

    /** As people and addresses write it: {@code berth-desk v1}. */
    public String titled() {
        return name + " v" + version;
    }
}
