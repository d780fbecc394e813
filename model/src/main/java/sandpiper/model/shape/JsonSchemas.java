package sandpiper.model.shape;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Writes the shape of a kind of file as a JSON Schema (draft 2020-12), ready to be turned into
 * JSON.
 */
public final class JsonSchemas {
    private JsonSchemas() {}

    /** The schema of one kind of file, as nested maps and lists in a fixed order. */
    public static Map<String, Object> of(FileKind kind) {
        var schema = new LinkedHashMap<String, Object>();
        schema.put("$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.put("title", "Sandpiper " + kind.id() + " file");
        schema.put(
                "description", "A definition file at " + kind.where() + " in a package's folder.");
        schema.putAll(of(kind.shape()));
        return schema;
    }

    private static Map<String, Object> of(Shape shape) {
        var schema = new LinkedHashMap<String, Object>();
        switch (shape) {
            case Shape.Text text -> {
                var pattern = text.pattern();
                schema.put(
                        "type",
                        pattern == null ? List.of("string", "number", "boolean") : "string");
                if (pattern != null) {
                    schema.put("pattern", "^(?:" + pattern.pattern() + ")$");
                }
            }
            case Shape.Free _ -> {
                // anything goes, which an empty schema says
            }
            case Shape.Flag _ -> schema.put("type", "boolean");
            case Shape.Whole whole -> {
                schema.put("type", "integer");
                schema.put("minimum", whole.lowest());
                schema.put("maximum", whole.highest());
            }
            case Shape.Word word -> schema.put("enum", word.words());
            case Shape.ListOf list -> {
                schema.put("type", "array");
                schema.put("items", of(list.item()));
            }
            case Shape.Named named -> {
                schema.put("type", List.of("object", "null"));
                schema.put(
                        "propertyNames",
                        Map.of("pattern", "^(?:" + named.names().pattern() + ")$"));
                schema.put("additionalProperties", of(named.value()));
            }
            case Shape.Keys keys -> keys(keys, schema);
            case Shape.Either either ->
                    schema.put("anyOf", either.options().stream().map(JsonSchemas::of).toList());
        }
        return schema;
    }

    private static void keys(Shape.Keys keys, Map<String, Object> schema) {
        var properties = new LinkedHashMap<String, Object>();
        for (var key : keys.keys()) {
            var property = new LinkedHashMap<String, Object>();
            property.put("description", key.describe());
            property.putAll(of(key.shape()));
            properties.put(key.name(), property);
        }
        var required =
                keys.keys().stream().filter(Shape.Key::required).map(Shape.Key::name).toList();
        schema.put("type", required.isEmpty() ? List.of("object", "null") : "object");
        schema.put("properties", properties);
        if (!required.isEmpty()) {
            schema.put("required", required);
        }
        schema.put("additionalProperties", false);
    }
}
