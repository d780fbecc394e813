package sandpiper.model.logic;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Field;
import sandpiper.model.release.Part;

/**
 * Says that a formula reads something of records elsewhere.
 *
 * @param part the part whose items have the field, or {@code null}
 * @param field what is read
 * @param route how the formula's record comes to the one that is read; gone backwards it leads from
 *     a changed record to those whose formula must be worked out again
 */
public record Watch(@Nullable Part part, Field field, List<Hop> route, Formula formula) {
    public Watch {
        route = List.copyOf(route);
    }
}
