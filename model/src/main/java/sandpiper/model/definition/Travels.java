package sandpiper.model.definition;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * That a field travels along a route.
 *
 * @param route its name
 * @param to objects and parts on it that get the field, such as {@code Stay.charges}, or {@code
 *     null} for all
 * @param follows whether the values on the way are kept like that of the source, instead of being
 *     what it was
 */
public record Travels(String route, @Nullable List<String> to, boolean follows) {
    public Travels {
        to = to == null ? null : List.copyOf(to);
    }

    /** Whether something on the route gets the field. */
    public boolean reaches(String written) {
        return to == null || to.contains(written);
    }
}
