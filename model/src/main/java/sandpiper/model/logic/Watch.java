package sandpiper.model.logic;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Field;
import sandpiper.model.release.Part;

/**
 * Says that a formula reads something of records elsewhere.
 *
 * @param part the part whose items have the field, or {@code null}
 * @param field what is read; {@code null} for the line items of the part as such
 * @param route how the formula's record comes to the one that is read; gone backwards it leads from
 *     a changed record to those whose formula must be worked out again
 * @param shares the totals through which alone the formula reads the object; nothing follows from a
 *     change that leaves what the record adds to them the same. Empty when it reads it otherwise
 */
public record Watch(
        @Nullable Part part,
        @Nullable Field field,
        List<Hop> route,
        Formula formula,
        List<RunningTotal> shares) {
    public Watch {
        route = List.copyOf(route);
        shares = List.copyOf(shares);
    }
}
