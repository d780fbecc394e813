package sandpiper.model.release;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A published service.
 *
 * @param describe what it is for, or {@code null}
 */
public record ServiceType(
        String name,
        int version,
        String packageName,
        String label,
        @Nullable String describe,
        List<String> protocols,
        List<ResourceType> resources) {
    public ServiceType {
        protocols = List.copyOf(protocols);
        resources = List.copyOf(resources);
    }

    /** The resource of a name, or nothing. */
    public Optional<ResourceType> resource(String resourceName) {
        return resources.stream()
                .filter(resource -> resource.name().equals(resourceName))
                .findFirst();
    }

    /** As people and addresses write it: {@code berth-desk v1}. */
    public String titled() {
        return name + " v" + version;
    }
}
