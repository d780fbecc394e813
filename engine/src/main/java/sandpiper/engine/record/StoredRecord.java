package sandpiper.engine.record;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A record as it is stored.
 *
 * @param number internal number; never leaves the service
 * @param id public id
 * @param values one for each field of the object in stored form, {@code null} for an empty one
 * @param items the line items of each part, in order
 */
public record StoredRecord(
        long number,
        UUID id,
        long version,
        boolean retired,
        Instant createdAt,
        String createdBy,
        Instant changedAt,
        String changedBy,
        @Nullable Object[] values,
        List<List<StoredItem>> items) {

    /**
     * A line item.
     *
     * @param line identifies it within its record as long as it lives
     * @param values one for each field of the part
     */
    public record StoredItem(long line, @Nullable Object[] values) {}
}
