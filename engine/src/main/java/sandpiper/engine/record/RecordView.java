package sandpiper.engine.record;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * The chosen fields of a record.
 *
 * @param number internal number; never leaves the service
 * @param stamps who made and changed it; {@code null} unless the tree is annotated
 * @param values one for each path of the tree, in stored form; a {@link Link} for a reference,
 *     {@code null} for an empty one
 * @param parts the line items of each part of the tree
 */
public record RecordView(
        long number,
        UUID id,
        long version,
        boolean retired,
        @Nullable Stamps stamps,
        @Nullable Object[] values,
        List<List<ItemView>> parts) {

    /** Who made and last changed a record, and when. */
    public record Stamps(
            Instant createdAt, String createdBy, Instant changedAt, String changedBy) {}

    /** The chosen fields of a line item. */
    public record ItemView(long line, @Nullable Object[] values) {}

    /**
     * The record a reference points to.
     *
     * @param key its key as text, or its public id when it has no natural key
     * @param title what people recognise it by; {@code null} when nothing is, or when the tree is
     *     not annotated
     */
    public record Link(String key, @Nullable String title) {}
}
