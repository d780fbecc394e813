package sandpiper.model.release;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A route: which documents are made from which others, so that fields travel along with them.
 *
 * @param describe what it is for, or {@code null}
 * @param services names of services whose resources show what travels
 */
public record RouteType(
        String name,
        String packageName,
        String label,
        @Nullable String describe,
        List<Step> steps,
        List<String> services) {
    public RouteType {
        steps = List.copyOf(steps);
        services = List.copyOf(services);
    }

    /**
     * A step: records of one object are made from those of another.
     *
     * @param from an object
     * @param to an object
     * @param part whose line items get their values, or {@code null} for the records themselves
     * @param through the references that lead from there to {@code from}; empty for line items of
     *     its own records
     */
    public record Step(String from, String to, @Nullable String part, List<String> through) {
        public Step {
            through = List.copyOf(through);
        }

        /** What gets the values: {@code Stay}, or {@code Stay.charges}. */
        public String target() {
            return part == null ? to : to + "." + part;
        }

        /** Whether the references begin at a line item. */
        public boolean isFromItem() {
            return part != null && !through.isEmpty();
        }
    }
}
