package sandpiper.model.openapi;

import java.util.ArrayDeque;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The part of a document that is used: some operations, and what they refer to. */
public final class ApiExcerpt {
    private static final List<String> KEPT = List.of("openapi", "info", "servers");

    private ApiExcerpt() {}

    /**
     * A document as text (JSON) with some operations only.
     *
     * @param written as they are named in a connection: {@code GET /rates/{currency}}
     */
    public static String of(ApiDocument document, Collection<String> written) {
        var root = document.root();
        var excerpt = new LinkedHashMap<String, Object>();
        KEPT.stream()
                .filter(root::containsKey)
                .forEach(key -> excerpt.put(key, Trees.map(root).get(key)));
        var paths = new LinkedHashMap<String, Object>();
        for (var operation : document.operations()) {
            if (written.contains(operation.written())) {
                keep(root, operation, paths);
            }
        }
        excerpt.put("paths", paths);
        for (var reference : references(root, paths)) {
            var found = Trees.at(root, reference);
            if (found != null) {
                put(excerpt, reference, found);
            }
        }
        return DocumentTexts.write(excerpt);
    }

    private static void keep(
            Map<String, Object> root, ApiOperation operation, Map<String, Object> paths) {
        var item =
                Trees.map(Trees.resolved(root, Trees.map(root.get("paths")).get(operation.path())));
        var kept = Trees.map(paths.get(operation.path()));
        var more = new LinkedHashMap<>(kept);
        if (item.containsKey("parameters")) {
            more.put("parameters", item.get("parameters"));
        }
        var method = operation.method().toLowerCase(Locale.ROOT);
        more.put(method, item.get(method));
        paths.put(operation.path(), more);
    }

    /** Everything within the document that a part of it refers to, directly or by others. */
    private static Set<String> references(Map<String, Object> root, Object part) {
        var found = new LinkedHashSet<String>();
        var waiting = new ArrayDeque<Object>();
        waiting.add(part);
        while (!waiting.isEmpty()) {
            switch (waiting.poll()) {
                case Map<?, ?> map -> {
                    if (map.get("$ref") instanceof String reference
                            && reference.startsWith("#/")
                            && found.add(reference)) {
                        add(Trees.at(root, reference), waiting);
                    }
                    map.values().forEach(one -> add(one, waiting));
                }
                case List<?> list -> list.forEach(one -> add(one, waiting));
                default -> {
                    // a value refers to nothing
                }
            }
        }
        return found;
    }

    private static void add(@Nullable Object value, ArrayDeque<Object> waiting) {
        if (value != null) {
            waiting.add(value);
        }
    }

    private static void put(Map<String, Object> into, String reference, Object value) {
        var steps = reference.substring(2).split("/", -1);
        var at = into;
        for (int i = 0; i < steps.length - 1; i++) {
            var inside = new LinkedHashMap<>(Trees.map(at.get(steps[i])));
            at.put(steps[i], inside);
            at = inside;
        }
        at.put(steps[steps.length - 1].replace("~1", "/").replace("~0", "~"), value);
    }
}
