package sandpiper.model.openapi;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What a document says of a value (JSON Schema 2020-12, and what OpenAPI 3.0 has of it), as far as
 * it can be told in advance. References within the document are followed as they are come by; what
 * is elsewhere, or one of several, is not known.
 */
public final class JsonShape {
    private final Map<String, Object> root;
    private final Map<String, Object> schema;
    private final boolean elsewhere;

    JsonShape(Map<String, Object> root, @Nullable Object written) {
        this.root = root;
        this.schema = Trees.map(Trees.resolved(root, written));
        this.elsewhere =
                Trees.map(written).get("$ref") instanceof String reference
                        && !reference.startsWith("#/");
    }

    /** Whether it refers to another document, which is not fetched. */
    public boolean isElsewhere() {
        return elsewhere;
    }

    /** Its types, as in {@code string}, without {@code null}; empty when nothing is said. */
    public Set<String> types() {
        var types = new LinkedHashSet<String>();
        if (schema.get("type") instanceof String one) {
            types.add(one);
        }
        Trees.list(schema.get("type")).forEach(one -> types.add(String.valueOf(one)));
        types.remove("null");
        if (types.isEmpty() && (schema.containsKey("properties") || isMerged())) {
            types.add("object");
        }
        if (types.isEmpty() && schema.containsKey("items")) {
            types.add("array");
        }
        return types;
    }

    private boolean isMerged() {
        return parts().stream().anyMatch(one -> one.types().contains("object"));
    }

    /** As in {@code date}; empty when nothing is said. */
    public String format() {
        return schema.get("format") instanceof String format ? format : "";
    }

    /** What it means; empty when nothing is said. */
    public String describe() {
        return schema.get("description") instanceof String text ? text : "";
    }

    /** What it has under names, in the order of the document; empty for what is no object. */
    public Map<String, JsonShape> properties() {
        var properties = new LinkedHashMap<String, JsonShape>();
        parts().forEach(part -> properties.putAll(part.properties()));
        Trees.map(schema.get("properties"))
                .forEach((name, one) -> properties.put(name, new JsonShape(root, one)));
        return properties;
    }

    /** The names that are always there. */
    public Set<String> required() {
        var names = new LinkedHashSet<String>();
        parts().forEach(part -> names.addAll(part.required()));
        Trees.list(schema.get("required")).forEach(one -> names.add(String.valueOf(one)));
        return names;
    }

    /** What is in a list, or nothing when it is none or nothing is said. */
    public Optional<JsonShape> items() {
        return schema.get("items") instanceof Map<?, ?> items
                ? Optional.of(new JsonShape(root, items))
                : Optional.empty();
    }

    /** What it is put together of: each of them holds. */
    private List<JsonShape> parts() {
        return Trees.list(schema.get("allOf")).stream()
                .map(one -> new JsonShape(root, one))
                .filter(one -> one.schema != schema)
                .toList();
    }

    /** Whether the document leaves open what it is. */
    public boolean isOpen() {
        return types().isEmpty() || (types().contains("object") && properties().isEmpty());
    }

    /**
     * Where steps lead, each the name of a property.
     *
     * @return nothing when there is no such property, or when the document leaves it open
     */
    public Optional<JsonShape> at(List<String> steps) {
        var shape = this;
        for (var step : steps) {
            var next = shape.properties().get(step);
            if (next == null) {
                return Optional.empty();
            }
            shape = next;
        }
        return Optional.of(shape);
    }

    /** For people: {@code string (date)}. */
    public String written() {
        if (elsewhere) {
            return "something of another document";
        }
        var types = types().isEmpty() ? "anything" : String.join(" or ", types());
        return format().isEmpty() ? types : "%s (%s)".formatted(types, format());
    }
}
