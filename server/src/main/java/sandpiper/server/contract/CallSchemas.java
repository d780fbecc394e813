package sandpiper.server.contract;

import static sandpiper.server.contract.OpenApiContract.map;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.CallType;
import sandpiper.model.release.Parameter;
import sandpiper.model.release.ValueType;

/** The schemas of what functions take and give back, and of what events tell. */
public final class CallSchemas {
    private final ContractSchemas schemas;

    CallSchemas(ContractSchemas schemas) {
        this.schemas = schemas;
    }

    /** For a document of its own, where nothing is shared with operations on records. */
    public static Map<String, Object> of(
            sandpiper.model.release.Release release, ValueType.Group group) {
        return new CallSchemas(new ContractSchemas(release)).group(group, false);
    }

    /** What a call does, with whose rights. */
    static String described(CallType call) {
        var words =
                new StringBuilder(Objects.requireNonNullElse(call.describe(), call.label() + "."));
        switch (call) {
            case CallType.OfTransition(var transition) ->
                    words.append(" It is possible only from ")
                            .append(String.join(" or ", transition.from()))
                            .append('.');
            case CallType.OfFunction(var function) ->
                    words.append(
                            function.ownRights()
                                    ? " It runs with rights of its own."
                                    : " It runs with the rights of its caller.");
        }
        return words.toString();
    }

    /** The body with the arguments; made under a name. */
    Map<String, Object> arguments(String name, ValueType.Group parameters) {
        schemas.put(name, group(parameters, true));
        boolean needed = parameters.entries().stream().anyMatch(Parameter::required);
        return map(
                "required", needed, "content", map("application/json", map("schema", ref(name))));
    }

    /**
     * The schema of what is answered, made under a name, which it gives.
     *
     * @param returns {@code null} for nothing
     * @param record the schema of the record beside it, or {@code null} when there is none
     */
    String answer(String name, @Nullable ValueType returns, @Nullable String record) {
        var properties = new LinkedHashMap<String, Object>();
        properties.put(
                "result",
                returns == null
                        ? map("type", "null", "description", "It returns nothing.")
                        : nullable(value(returns)));
        if (record != null) {
            properties.put("record", ref(record));
        }
        schemas.put(
                name,
                map(
                        "type",
                        "object",
                        "description",
                        "What came of the call.",
                        "properties",
                        properties,
                        "required",
                        new ArrayList<>(properties.keySet())));
        return name;
    }

    private static Map<String, Object> ref(String schema) {
        return map("$ref", "#/components/schemas/" + schema);
    }

    /** An object with what a group has; {@code closed} when nothing else may stand there. */
    private Map<String, Object> group(ValueType.Group group, boolean closed) {
        var properties = new LinkedHashMap<String, Object>();
        for (var entry : group.entries()) {
            var schema = value(entry.type());
            schema.put("title", entry.label());
            if (entry.describe() != null) {
                schema.put("description", entry.describe());
            }
            properties.put(entry.name(), entry.required() ? schema : nullable(schema));
        }
        var schema = map("type", "object", "properties", properties);
        var required =
                group.entries().stream().filter(Parameter::required).map(Parameter::name).toList();
        if (!required.isEmpty()) {
            schema.put("required", required);
        }
        if (closed) {
            schema.put("additionalProperties", false);
        }
        return schema;
    }

    private Map<String, Object> value(ValueType type) {
        return switch (type) {
            case ValueType.Single(var field) -> schemas.value(field);
            case ValueType.Many(var item) -> map("type", "array", "items", value(item));
            case ValueType.Group group -> group(group, false);
        };
    }

    private static Map<String, Object> nullable(Map<String, Object> schema) {
        var nullable = new LinkedHashMap<>(schema);
        if (schema.get("type") instanceof String type) {
            nullable.put("type", List.of(type, "null"));
        }
        if (schema.get("enum") instanceof List<?> codes) {
            var withNull = new ArrayList<@Nullable Object>(codes);
            withNull.add(null);
            nullable.put("enum", withNull);
        }
        return nullable;
    }
}
