package sandpiper.model.openapi;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** What another document says of operations that are used. */
public final class ApiDifferences {
    /** How deep answers are looked into. */
    private static final int DEEPEST = 8;

    private ApiDifferences() {}

    /**
     * The differences, each a sentence; empty when the operations are the same.
     *
     * @param written the operations, as they are named in a connection
     */
    public static List<String> of(
            ApiDocument before, ApiDocument after, Collection<String> written) {
        var said = new ArrayList<String>();
        for (var name : written) {
            var was = find(before, name);
            var is = find(after, name);
            if (was != null && is == null) {
                said.add("%s is gone.".formatted(name));
            } else if (was == null && is != null) {
                said.add("%s is new.".formatted(name));
            } else if (was != null && is != null) {
                compare(name, places(was), places(is), said);
            }
        }
        return said;
    }

    private static @org.jspecify.annotations.Nullable ApiOperation find(
            ApiDocument document, String written) {
        return document.operations().stream()
                .filter(one -> one.written().equals(written))
                .findFirst()
                .orElse(null);
    }

    private static void compare(
            String name, Map<String, String> was, Map<String, String> is, List<String> said) {
        was.forEach((place, before) -> {
            var now = is.get(place);
            if (now == null) {
                said.add("%s: %s is gone.".formatted(name, place));
            } else if (!now.equals(before)) {
                said.add("%s: %s was %s and is %s.".formatted(name, place, before, now));
            }
        });
        is.forEach((place, now) -> {
            if (!was.containsKey(place)) {
                said.add("%s: %s is new, %s.".formatted(name, place, now));
            }
        });
    }

    /** What is said of each parameter, and of each place of the answer. */
    private static Map<String, String> places(ApiOperation operation) {
        var places = new LinkedHashMap<String, String>();
        for (var parameter : operation.parameters()) {
            places.put(
                    "the parameter " + parameter.name(),
                    "%s in the %s%s"
                            .formatted(
                                    parameter.shape().written(),
                                    parameter.place().word(),
                                    parameter.required() ? ", required" : ""));
        }
        var answer = operation.answer();
        if (answer != null) {
            look(answer, "", 0, places);
        }
        return places;
    }

    private static void look(JsonShape shape, String at, int depth, Map<String, String> places) {
        places.put(at.isEmpty() ? "the answer" : at + " of the answer", shape.written());
        if (depth == DEEPEST) {
            return;
        }
        shape.items().ifPresent(items -> look(items, at + "[]", depth + 1, places));
        shape.properties()
                .forEach((name, one) ->
                        look(one, at.isEmpty() ? name : at + "." + name, depth + 1, places));
    }
}
