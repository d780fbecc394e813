package sandpiper.engine.command;

import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.model.definition.DefaultValue;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;

/**
 * What is wanted of a record. Values are in plain form as they came: text, numbers, booleans, lists
 * of maps for line items, and {@code null} for what shall be empty.
 */
public sealed interface RecordCommand {
    ObjectType object();

    /**
     * Makes a new record.
     *
     * @param writable the fields that may be given
     * @param presets fields that have a value already, whatever is given
     * @param id the public id it shall have, by which others of the same work may mean it; {@code
     *     null} for any
     */
    record Create(
            ObjectType object,
            FieldTree writable,
            Map<String, @Nullable Object> values,
            Map<Field, DefaultValue> presets,
            @Nullable UUID id)
            implements RecordCommand {
        /** Without presets. */
        public Create(ObjectType object, FieldTree writable, Map<String, @Nullable Object> values) {
            this(object, writable, values, Map.of(), null);
        }
    }

    /** Changes the given fields of a record and leaves the others; {@code key} as in an address. */
    record Change(
            ObjectType object,
            FieldTree writable,
            String key,
            Map<String, @Nullable Object> values,
            @Nullable Expected expected)
            implements RecordCommand {}

    /**
     * Changes the record that has the key, or makes it.
     *
     * @param key as in an address, or {@code null} when it is among the values
     * @param presets see {@link Create}
     * @param merges whether members of a value that are not named stay (RFC 7396); otherwise what
     *     is given is the whole value
     */
    record Save(
            ObjectType object,
            FieldTree creatable,
            FieldTree changeable,
            @Nullable String key,
            Map<String, @Nullable Object> values,
            Map<Field, DefaultValue> presets,
            boolean merges,
            @Nullable Expected expected)
            implements RecordCommand {}

    /** Retires or deletes a record, whichever its object says. */
    record Remove(ObjectType object, String key, @Nullable Expected expected)
            implements RecordCommand {}

    /** Takes a transition of a record's lifecycle. */
    record Transit(ObjectType object, String key, String transition, @Nullable Expected expected)
            implements RecordCommand {}

    /**
     * Calls a function.
     *
     * @param key of the record it is called on, or {@code null} for one of the object as a whole
     * @param function its name, which the object is known to have
     * @param arguments by the names of its parameters
     */
    record Call(
            ObjectType object,
            @Nullable String key,
            String function,
            Map<String, @Nullable Object> arguments,
            @Nullable Expected expected)
            implements RecordCommand {}

    /** Takes a retired record back into use. */
    record Restore(ObjectType object, String key) implements RecordCommand {}
}
