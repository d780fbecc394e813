package sandpiper.model.release;

import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A business object.
 *
 * @param describe what a record is, or {@code null}
 * @param was its name in an earlier release, or {@code null}
 * @param key names of the fields that identify a record; empty when it has no natural key
 * @param numbering how its number is made, or {@code null}
 * @param zone in which its dates are meant
 */
public record ObjectType(
        String name,
        String packageName,
        String label,
        String plural,
        @Nullable String describe,
        @Nullable String was,
        List<String> key,
        @Nullable Numbering numbering,
        Removal removal,
        Fields fields,
        List<Part> parts,
        ZoneId zone) {
    public ObjectType {
        key = List.copyOf(key);
        parts = List.copyOf(parts);
    }

    /** The fields of the natural key, in its order. */
    public List<Field> keyFields() {
        return key.stream().map(fields::get).toList();
    }

    /** The part of a name, or nothing. */
    public Optional<Part> part(String partName) {
        return parts.stream().filter(part -> part.name().equals(partName)).findFirst();
    }

    /** Whether a field is numbered by the service. */
    public boolean isNumbered(Field field) {
        return numbering != null && numbering.field().equals(field.name());
    }

    /**
     * A field to show beside the key so that people recognise a record: the first text that is not
     * the key, if any.
     */
    public Optional<Field> titleField() {
        return fields.stream()
                .filter(field -> !key.contains(field.name()))
                .filter(field -> field.name().equals("name") || field.name().equals("title"))
                .findFirst()
                .or(() ->
                        fields.stream()
                                .filter(field -> !key.contains(field.name()))
                                .filter(field -> field.name().startsWith("desc"))
                                .findFirst());
    }
}
