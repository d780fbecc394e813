package sandpiper.engine.port;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.change.FieldChange;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/**
 * What was kept aside and comes back with a release: records or line items as a whole, or the
 * values of one field in those that are there.
 *
 * @param object where it comes to, as it will be
 * @param part where it comes to, or {@code null} for the object itself
 * @param fields what each field was when it went, and what it will be
 */
public record Comeback(
        KeptStorage.Kept kept, ObjectType object, @Nullable Part part, List<FieldChange> fields) {
    public Comeback {
        fields = List.copyOf(fields);
    }

    /** Whether records or line items come, and not values of those that are there. */
    public boolean isWhole() {
        return kept.place().field() == null;
    }
}
