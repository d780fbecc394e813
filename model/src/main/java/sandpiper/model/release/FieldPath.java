package sandpiper.model.release;

import java.util.List;

/**
 * A field of a record, or of one reached through references.
 *
 * @param steps the references on the way and the field at the end; never empty
 */
public record FieldPath(List<Field> steps) {
    public FieldPath {
        steps = List.copyOf(steps);
        if (steps.isEmpty()) {
            throw new IllegalArgumentException("A path needs a field");
        }
    }

    /** A field of the record itself. */
    public static FieldPath of(Field field) {
        return new FieldPath(List.of(field));
    }

    public Field last() {
        return steps.getLast();
    }

    /** Whether the field belongs to the record itself. */
    public boolean isOwn() {
        return steps.size() == 1;
    }

    /** As it is written: {@code vessel.owner.name}. */
    public String written() {
        return String.join(".", steps.stream().map(Field::name).toList());
    }
}
