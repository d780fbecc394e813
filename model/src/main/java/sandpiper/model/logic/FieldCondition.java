package sandpiper.model.logic;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.run.Code;
import sandpiper.model.release.Field;
import sandpiper.model.release.Part;

/**
 * When a field is required, read-only or hidden.
 *
 * @param written as in the definition
 * @param say what people are told instead of the condition, or {@code null}
 * @param always whether it is true whatever the record
 */
public record FieldCondition(
        Kind kind,
        @Nullable Part part,
        Field field,
        String written,
        Code code,
        @Nullable Code say,
        boolean always) {
    /** What a field is when the condition holds. */
    public enum Kind {
        REQUIRED,
        READ_ONLY,
        HIDDEN
    }
}
