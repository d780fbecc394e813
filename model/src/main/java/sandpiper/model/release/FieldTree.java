package sandpiper.model.release;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * The fields an operation takes or gives.
 *
 * @param paths fields of the record and of those it refers to
 * @param parts line items with their fields
 * @param annotated whether what people are told beside the fields comes too: who made and changed a
 *     record and when, and what the records it refers to are called
 * @param shape the same as text, by which trees over one object are told apart
 */
public record FieldTree(
        List<FieldPath> paths, List<PartTree> parts, boolean annotated, String shape) {
    /** No field at all. */
    public static final FieldTree EMPTY = new FieldTree(List.of(), List.of());

    public FieldTree {
        paths = List.copyOf(paths);
        parts = List.copyOf(parts);
    }

    /** Fields alone. */
    public FieldTree(List<FieldPath> paths, List<PartTree> parts) {
        this(paths, parts, false);
    }

    public FieldTree(List<FieldPath> paths, List<PartTree> parts, boolean annotated) {
        this(paths, parts, annotated, shape(paths, parts, annotated));
    }

    private static String shape(List<FieldPath> paths, List<PartTree> parts, boolean annotated) {
        return (annotated ? "+" : "")
                + String.join(",", paths.stream().map(FieldPath::written).toList())
                + String.join("", parts.stream().map(PartTree::shape).toList());
    }

    /** A part with the fields of its items. */
    public record PartTree(Part part, List<FieldPath> paths) {
        public PartTree {
            paths = List.copyOf(paths);
        }

        private PartTree and(PartTree other) {
            var more = new LinkedHashMap<String, FieldPath>();
            Stream.concat(paths.stream(), other.paths.stream())
                    .forEach(path -> more.putIfAbsent(path.written(), path));
            return new PartTree(part, List.copyOf(more.values()));
        }

        private String shape() {
            return ";" + part.name() + paths.stream().map(FieldPath::written).toList();
        }
    }

    /** Everything a record has of its own, line items included, and annotated. */
    public static FieldTree everythingOf(ObjectType object) {
        return new FieldTree(
                object.fields().stream().map(FieldPath::of).toList(),
                object.parts().stream()
                        .map(part ->
                                new PartTree(
                                        part, part.fields().stream().map(FieldPath::of).toList()))
                        .toList(),
                true);
    }

    /** This tree and what another has besides. */
    public FieldTree and(FieldTree other) {
        var morePaths = new LinkedHashMap<String, FieldPath>();
        Stream.concat(paths.stream(), other.paths.stream())
                .forEach(path -> morePaths.putIfAbsent(path.written(), path));
        var moreParts = new LinkedHashMap<String, PartTree>();
        Stream.concat(parts.stream(), other.parts.stream())
                .forEach(part -> moreParts.merge(part.part().name(), part, PartTree::and));
        return new FieldTree(
                List.copyOf(morePaths.values()),
                List.copyOf(moreParts.values()),
                annotated || other.annotated);
    }

    /** This tree and what another has of fields and parts that are not here at all. */
    public FieldTree beside(FieldTree other) {
        var here = paths.stream().map(path -> path.steps().getFirst().name()).toList();
        return and(
                new FieldTree(
                        other.paths.stream()
                                .filter(path -> !here.contains(path.steps().getFirst().name()))
                                .toList(),
                        other.parts.stream()
                                .filter(one -> part(one.part().name()).isEmpty())
                                .toList()));
    }

    /**
     * What of it is called by one of these names: {@code vessel.name}, {@code charges}. The name of
     * a reference brings all that is shown of its record.
     */
    public FieldTree only(List<String> names) {
        return new FieldTree(
                paths.stream()
                        .filter(path ->
                                names.stream()
                                        .anyMatch(name ->
                                                path.written().equals(name)
                                                        || path.written().startsWith(name + ".")))
                        .toList(),
                parts.stream().filter(part -> names.contains(part.part().name())).toList(),
                annotated);
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
