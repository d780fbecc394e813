package sandpiper.model.release;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** A field of a record, or of one reached through references. Immutable; equal by its steps. */
public final class FieldPath {
    private final List<Field> steps;

    /** Asked for again and again with each request, so it is put together once. */
    private final String written;

    /**
     * @param steps the references on the way and the field at the end; never empty
     */
    public FieldPath(List<Field> steps) {
        this.steps = List.copyOf(steps);
        if (steps.isEmpty()) {
            throw new IllegalArgumentException("A path needs a field");
        }
        written = String.join(".", steps.stream().map(Field::name).toList());
    }

    /** The references on the way and the field at the end; never empty. */
    public List<Field> steps() {
        return steps;
    }

    /** A field of the record itself. */
    public static FieldPath of(Field field) {
        return new FieldPath(List.of(field));
    }

    /**
     * The path that names lead along, each but the last through a reference.
     *
     * @return nothing when one of them is no field, or stands before another and is no reference
     */
    public static Optional<FieldPath> resolve(
            Release release, ObjectType from, List<String> names) {
        var steps = new ArrayList<Field>();
        var at = from;
        for (var name : names) {
            if (!steps.isEmpty()) {
                if (!steps.getLast().isReference()) {
                    return Optional.empty();
                }
                at = release.target(steps.getLast());
            }
            var field = at.fields().find(name);
            if (field.isEmpty()) {
                return Optional.empty();
            }
            steps.add(field.get());
        }
        return steps.isEmpty() ? Optional.empty() : Optional.of(new FieldPath(steps));
    }

    /** The object that the last field belongs to. */
    public ObjectType owner(Release release, ObjectType from) {
        return isOwn() ? from : release.target(steps.get(steps.size() - 2));
    }

    /** The references on the way; empty for a field of the record itself. */
    public List<Field> way() {
        return steps.subList(0, steps.size() - 1);
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
        return written;
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof FieldPath path && steps.equals(path.steps);
    }

    @Override
    public int hashCode() {
        return steps.hashCode();
    }

    @Override
    public String toString() {
        return written;
    }
}
