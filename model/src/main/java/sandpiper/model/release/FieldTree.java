package sandpiper.model.release;

import java.util.List;
import java.util.Optional;

/**
 * The fields an operation takes or gives.
 *
 * @param paths fields of the record and of those it refers to
 * @param parts line items with their fields
 */
public record FieldTree(List<FieldPath> paths, List<PartTree> parts) {
    public FieldTree {
        paths = List.copyOf(paths);
        parts = List.copyOf(parts);
    }

    /** A part with the fields of its items. */
    public record PartTree(Part part, List<FieldPath> paths) {
        public PartTree {
            paths = List.copyOf(paths);
        }
    }

    /** Everything a record has of its own, line items included. */
    public static FieldTree everythingOf(ObjectType object) {
        return new FieldTree(
                object.fields().stream().map(FieldPath::of).toList(),
                object.parts().stream()
                        .map(part ->
                                new PartTree(
                                        part, part.fields().stream().map(FieldPath::of).toList()))
                        .toList());
    }

    /** Whether a field of the record itself is among them. */
    public boolean hasOwn(String field) {
        return paths.stream().anyMatch(path -> path.isOwn() && path.last().name().equals(field));
    }

    /** The tree of a part, or nothing when it is not among them. */
    public Optional<PartTree> part(String name) {
        return parts.stream().filter(tree -> tree.part().name().equals(name)).findFirst();
    }
}
