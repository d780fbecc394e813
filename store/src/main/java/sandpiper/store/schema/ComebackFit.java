package sandpiper.store.schema;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.Comeback;
import sandpiper.model.change.FieldChange;
import sandpiper.model.release.Field;

/**
 * What of something that was kept aside can come back.
 *
 * @param fields those whose values fit
 * @param misfits why the values of others stay aside, a sentence each
 * @param hindrance why nothing of it comes, or {@code null} when it does
 */
record ComebackFit(
        Comeback comeback,
        List<FieldChange> fields,
        List<String> misfits,
        @Nullable String hindrance) {
    ComebackFit {
        fields = List.copyOf(fields);
        misfits = List.copyOf(misfits);
    }

    boolean comes() {
        return hindrance == null;
    }

    /** Whether the values of a field come. */
    boolean brings(Field field) {
        return comes() && fields.stream().anyMatch(one -> now(one).name().equals(field.name()));
    }

    /** A field as it was when it went. */
    static Field then(FieldChange change) {
        return Objects.requireNonNull(change.before());
    }

    /** A field as it will be. */
    static Field now(FieldChange change) {
        return Objects.requireNonNull(change.after());
    }
}
