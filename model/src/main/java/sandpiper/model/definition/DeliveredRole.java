package sandpiper.model.definition;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A named set of grants that comes with a package. It carries no duties of the console: those are
 * given by whoever runs an instance.
 *
 * @param packageName the package it comes with
 * @param services operations of services, as in {@code berth-desk/stays/read}, with {@code *} for
 *     all and a condition behind {@code where}
 * @param objects what may be done with records
 */
public record DeliveredRole(
        String name,
        String packageName,
        String label,
        @Nullable String describe,
        List<String> services,
        List<Grant> objects) {
    /** What can be done with records, as it is written. */
    public static final List<String> ACTIONS = List.of("view", "create", "edit", "retire");

    public DeliveredRole {
        services = List.copyOf(services);
        objects = List.copyOf(objects);
    }

    /**
     * What may be done with the records of an object.
     *
     * @param object its name, or {@code *} for every object
     * @param actions some of {@link #ACTIONS}
     * @param where the condition that the records meet, or {@code null} for all
     * @param hidden fields and parts that are not seen
     * @param readOnly fields and parts that are seen but not changed
     */
    public record Grant(
            String object,
            List<String> actions,
            @Nullable String where,
            List<String> hidden,
            List<String> readOnly) {
        public Grant {
            actions = List.copyOf(actions);
            hidden = List.copyOf(hidden);
            readOnly = List.copyOf(readOnly);
        }
    }
}
