package sandpiper.model.release;

import java.util.LinkedHashMap;
import java.util.List;

/**
 * What chosen paths have in common at one step: a field, whether it is chosen itself, and what is
 * chosen behind it when it is a reference.
 */
public record PathGroup(Field field, boolean itself, List<FieldPath> behind) {
    public PathGroup {
        behind = List.copyOf(behind);
    }

    /** The paths by their step at a depth, from 0, in the order in which fields first stand. */
    public static List<PathGroup> of(List<FieldPath> paths, int depth) {
        var fields = new LinkedHashMap<String, Field>();
        paths.forEach(path -> {
            var field = path.steps().get(depth);
            fields.putIfAbsent(field.name(), field);
        });
        return fields.values().stream().map(field -> group(paths, depth, field)).toList();
    }

    private static PathGroup group(List<FieldPath> paths, int depth, Field field) {
        var same = paths.stream().filter(path -> path.steps().get(depth).equals(field)).toList();
        return new PathGroup(
                field,
                same.stream().anyMatch(path -> path.steps().size() == depth + 1),
                same.stream().filter(path -> path.steps().size() > depth + 1).toList());
    }
}
