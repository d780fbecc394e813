package sandpiper.engine.access;

import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A named set of grants that people can be given.
 *
 * @param services operations of services, each as {@link ServiceGrant} reads it
 * @param from the package that brings it, or {@code null} when it was made in this instance
 */
public record Role(
        String name,
        String label,
        @Nullable String describe,
        Set<Duty> duties,
        List<String> services,
        List<ObjectGrant> objects,
        @Nullable String from) {
    public Role {
        duties = Set.copyOf(duties);
        services = List.copyOf(services);
        objects = List.copyOf(objects);
    }
}
