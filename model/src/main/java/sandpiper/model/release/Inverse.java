package sandpiper.model.release;

import org.jspecify.annotations.Nullable;

/**
 * A reference seen from the object it points to.
 *
 * @param from the object whose records refer
 * @param part the part whose line items refer, or {@code null} when the record itself does
 * @param field the reference
 */
public record Inverse(ObjectType from, @Nullable Part part, Field field) {}
