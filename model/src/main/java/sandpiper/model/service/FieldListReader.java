package sandpiper.model.service;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.source.Source;
import sandpiper.model.type.FieldType;

/**
 * Reads a list of fields such as {@code all, vessel.owner.name, charges(tariff, quantity)}. YAML
 * cuts such a list at its commas when it stands in square brackets; the pieces are put together
 * again first.
 */
final class FieldListReader {
    private final Source source;
    private final Map<String, ObjectType> objects;
    private final String[] place;

    FieldListReader(Source source, Map<String, ObjectType> objects, List<String> place) {
        this.source = source;
        this.objects = objects;
        this.place = place.toArray(String[]::new);
    }

    /** Whether a list asks for every field, whatever it names besides. */
    static boolean namesAll(List<String> pieces) {
        return Stream.of(String.join(",", pieces).split(",", -1))
                .anyMatch(item -> item.strip().equals("all"));
    }

    /** Whether a list asks for line items, beside what else it asks for. */
    static boolean namesPart(List<String> pieces, String part) {
        return namesSomeOf(pieces, part)
                || Stream.of(String.join(",", pieces).split(",", -1))
                        .anyMatch(item -> item.strip().equals(part));
    }

    /** Whether a list names fields of line items: {@code charges(tariff, quantity)}. */
    static boolean namesSomeOf(List<String> pieces, String part) {
        var list = String.join(",", pieces);
        var named =
                Pattern.compile("(^|[,\\s])" + Pattern.quote(part) + "\\s*\\((?!\\s*all\\s*\\))");
        return named.matcher(list).find();
    }

    FieldTree read(ObjectType object, List<String> pieces) {
        var paths = new ArrayList<FieldPath>();
        var parts = new ArrayList<FieldTree.PartTree>();
        for (var item : split(String.join(",", pieces))) {
            int open = item.indexOf('(');
            if (item.equals("all")) {
                object.fields().forEach(field -> add(paths, FieldPath.of(field)));
                FieldTree.everythingOf(object).parts().forEach(tree -> addPart(parts, tree));
            } else if (open >= 0 && item.endsWith(")")) {
                part(
                                object,
                                item.substring(0, open).strip(),
                                item.substring(open + 1, item.length() - 1))
                        .ifPresent(tree -> addPart(parts, tree));
            } else if (object.part(item).isPresent()) {
                part(object, item, "all").ifPresent(tree -> addPart(parts, tree));
            } else {
                path(object.name(), object.fields(), object.parts(), item)
                        .ifPresent(path -> add(paths, path));
            }
        }
        return new FieldTree(paths, parts);
    }

    private static void add(List<FieldPath> paths, FieldPath path) {
        if (paths.stream().noneMatch(other -> other.written().equals(path.written()))) {
            paths.add(path);
        }
    }

    private static void addPart(List<FieldTree.PartTree> parts, FieldTree.PartTree tree) {
        parts.removeIf(other -> other.part().name().equals(tree.part().name()));
        parts.add(tree);
    }

    private Optional<FieldTree.PartTree> part(ObjectType object, String name, String list) {
        var part = object.part(name);
        if (part.isEmpty()) {
            var names = object.parts().stream().map(Part::name).toList();
            error(
                    "%s has no line items %s.".formatted(object.name(), Quoted.of(name)),
                    Nearest.to(name, names).orElse(null));
            return Optional.empty();
        }
        var paths = new ArrayList<FieldPath>();
        for (var item : split(list)) {
            if (item.equals("all")) {
                part.get().fields().forEach(field -> add(paths, FieldPath.of(field)));
            } else {
                path(name, part.get().fields(), List.of(), item)
                        .ifPresent(path -> add(paths, path));
            }
        }
        return Optional.of(new FieldTree.PartTree(part.get(), paths));
    }

    private Optional<FieldPath> path(String in, Fields fields, List<Part> parts, String written) {
        var steps = new ArrayList<Field>();
        var at = fields;
        var atName = in;
        var names = written.split("\\.", -1);
        for (int i = 0; i < names.length; i++) {
            var name = names[i].strip();
            var field = at.find(name);
            if (field.isEmpty()) {
                var known = new ArrayList<>(at.names());
                if (i == 0) {
                    parts.forEach(part -> known.add(part.name()));
                }
                error(
                        "%s has no field %s.".formatted(atName, Quoted.of(name)),
                        Nearest.to(name, known).orElse(null));
                return Optional.empty();
            }
            steps.add(field.get());
            if (i < names.length - 1) {
                var next =
                        field.get().type() instanceof FieldType.Reference(var to, _)
                                ? objects.get(to)
                                : null;
                if (next == null) {
                    error(
                            "%s is not a reference, so nothing comes behind it."
                                    .formatted(Quoted.of(name)),
                            null);
                    return Optional.empty();
                }
                at = next.fields();
                atName = next.name();
            }
        }
        return Optional.of(new FieldPath(steps));
    }

    /** Cuts at commas that stand in no brackets. */
    private List<String> split(String list) {
        var items = new ArrayList<String>();
        int depth = 0;
        int start = 0;
        for (int i = 0; i <= list.length(); i++) {
            char c = i == list.length() ? ',' : list.charAt(i);
            if (c == '(') {
                depth++;
            } else if (c == ')') {
                depth--;
            }
            if ((c == ',' && depth <= 0) || i == list.length()) {
                var item = list.substring(start, i).strip();
                if (!item.isEmpty()) {
                    items.add(item);
                }
                start = i + 1;
            }
        }
        if (depth != 0) {
            error("A bracket is missing in %s.".formatted(Quoted.of(list)), null);
        }
        if (items.isEmpty()) {
            error("Name at least one field, or all.", null);
        }
        return items;
    }

    private void error(String message, @org.jspecify.annotations.Nullable String suggestion) {
        source.error(DefinitionCode.BAD_FIELD_LIST, message, suggestion, place);
    }
}
