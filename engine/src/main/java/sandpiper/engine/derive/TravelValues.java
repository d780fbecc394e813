package sandpiper.engine.derive;

import org.jspecify.annotations.Nullable;
import sandpiper.engine.work.Row;
import sandpiper.engine.work.Workspace;
import sandpiper.model.definition.TravelSource;

/** Follows routes back to the values that travel along them. */
public final class TravelValues {
    private final Workspace workspace;

    public TravelValues(Workspace workspace) {
        this.workspace = workspace;
    }

    /**
     * Where a value comes from.
     *
     * @param from the record that has it
     * @param value as it is stored; {@code null} when it is empty
     */
    public record Found(Row from, @Nullable Object value) {}

    /** The value for a row, or {@code null} when a reference on the way leads nowhere. */
    public @Nullable Found find(Row row, TravelSource source) {
        Row at = source.ofRecord() ? row.record() : row;
        for (var name : source.through()) {
            var reference = at.slots().fields().get(name);
            if (!(at.slots().get(reference) instanceof Long number)) {
                return null;
            }
            at = workspace.record(workspace.release().target(reference), number);
        }
        var field = at.slots().fields().get(source.field());
        return new Found(
                at, field.onRead() ? workspace.workedOut(at, field) : at.slots().get(field));
    }
}
