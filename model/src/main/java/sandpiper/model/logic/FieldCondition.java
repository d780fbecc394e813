package sandpiper.model.logic;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.run.Code;
import sandpiper.model.release.Field;
import sandpiper.model.release.Part;

/** When a field is required, read-only or hidden. */
public record FieldCondition(
        Kind kind, @Nullable Part part, Field field, String written, Code code) {
    /** What a field is when the condition holds. */
    public enum Kind {
        REQUIRED,
        READ_ONLY,
        HIDDEN
    }
}
