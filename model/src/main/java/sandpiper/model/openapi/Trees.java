package sandpiper.model.openapi;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Finds its way in nested maps and lists of which little is known. */
final class Trees {
    /** References that lead to each other; more lead in a circle. */
    private static final int MOST_HOPS = 32;

    private Trees() {}

    /** A map, empty for anything else. */
    @SuppressWarnings("unchecked") // the keys of what was read as JSON or YAML are made texts
    static Map<String, Object> map(@Nullable Object value) {
        return value instanceof Map<?, ?> map ? (Map<String, Object>) map : Map.of();
    }

    /** A list, empty for anything else. */
    @SuppressWarnings("unchecked")
    static List<Object> list(@Nullable Object value) {
        return value instanceof List<?> list ? (List<Object>) list : List.of();
    }

    /** What a value stands for when it refers to another place of the document. */
    static @Nullable Object resolved(Map<String, Object> root, @Nullable Object value) {
        var at = value;
        for (int i = 0; i < MOST_HOPS; i++) {
            if (!(map(at).get("$ref") instanceof String reference)) {
                return at;
            }
            if (!reference.startsWith("#/")) {
                return null;
            }
            at = at(root, reference);
        }
        return null;
    }

    /** What stands at a JSON Pointer (RFC 6901) behind {@code #}. */
    static @Nullable Object at(Map<String, Object> root, String reference) {
        Object at = root;
        for (var step : reference.substring(2).split("/", -1)) {
            var name =
                    java.net.URLDecoder.decode(
                                    step.replace("+", "%2B"),
                                    java.nio.charset.StandardCharsets.UTF_8)
                            .replace("~1", "/")
                            .replace("~0", "~");
            at = map(at).get(name);
            if (at == null) {
                return null;
            }
        }
        return at;
    }
}
