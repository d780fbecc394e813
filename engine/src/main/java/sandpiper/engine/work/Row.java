package sandpiper.engine.work;

import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.FaultPath;
import sandpiper.logic.value.RecordValue;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/** What has fields of its own while it is being changed: a record, or a line item of one. */
public sealed interface Row permits RecordState, ItemState {
    /** The record itself, or the one that a line item belongs to. */
    RecordState record();

    /** The part of a line item; {@code null} for a record. */
    @Nullable Part part();

    Slots slots();

    /** As logic sees it; the same one at each call. */
    RecordValue logic(Workspace workspace);

    /** Its place in the record: nothing, or the part and the place in it, from 0. */
    FaultPath path();

    /** The object of the record. */
    default ObjectType object() {
        return record().object();
    }

    /** The place of one of its fields in the record. */
    default FaultPath path(Field field) {
        return path().then(field.name());
    }

    /** Whether a part, or none, is the one that it is in. */
    default boolean isIn(@Nullable Part other) {
        var own = part();
        return own == null ? other == null : other != null && own.name().equals(other.name());
    }
}
