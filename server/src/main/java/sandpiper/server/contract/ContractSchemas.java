package sandpiper.server.contract;

import static sandpiper.server.contract.OpenApiContract.map;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import sandpiper.engine.read.PlainRecords;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.PathGroup;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;

/** The schemas of a contract, each made when it is first needed. */
final class ContractSchemas {
    private final Release release;
    private final Map<String, Object> schemas = new LinkedHashMap<>();

    ContractSchemas(Release release) {
        this.release = release;
    }

    Map<String, Object> all() {
        return schemas;
    }

    /** Keeps a schema that is made elsewhere. */
    void put(String name, Map<String, Object> schema) {
        schemas.put(name, schema);
    }

    /** The schema of a value such as a field holds. */
    Map<String, Object> value(Field field) {
        return schema(field);
    }

    /** The schema of a record as it is answered; gives its name. */
    String answer(String name, ResourceType resource, Operation operation) {
        schemas.computeIfAbsent(
                name,
                _ -> {
                    var tree = resource.tree(operation).orElseThrow();
                    if (operation == Operation.QUERY) {
                        // What can be asked for besides, see the parameter "fields".
                        tree = tree.beside(resource.tree(Operation.READ).orElse(FieldTree.EMPTY));
                    }
                    var properties = new LinkedHashMap<String, Object>();
                    properties.put(
                            "id",
                            map(
                                    "type",
                                    "string",
                                    "format",
                                    "uuid",
                                    "description",
                                    "The record's public id.",
                                    "readOnly",
                                    true));
                    properties.put(
                            "version",
                            map(
                                    "type",
                                    "integer",
                                    "format",
                                    "int64",
                                    "description",
                                    "Grows with each change.",
                                    "readOnly",
                                    true));
                    properties.putAll(answered(tree.paths(), 0));
                    for (var part : tree.parts()) {
                        var item = new LinkedHashMap<String, Object>();
                        item.put(
                                "line",
                                map(
                                        "type",
                                        "integer",
                                        "format",
                                        "int64",
                                        "description",
                                        "Identifies the item within its record."));
                        item.putAll(answered(part.paths(), 0));
                        properties.put(
                                part.part().name(),
                                map(
                                        "type",
                                        "array",
                                        "description",
                                        part.part().describe() == null
                                                ? part.part().label() + "."
                                                : part.part().describe(),
                                        "items",
                                        map(
                                                "type",
                                                "object",
                                                "properties",
                                                item,
                                                "required",
                                                List.of("line"))));
                    }
                    return map(
                            "type",
                            "object",
                            "description",
                            described(resource.object()),
                            "properties",
                            properties,
                            "required",
                            List.of("id", "version"));
                });
        return name;
    }

    private static String described(ObjectType object) {
        return Objects.requireNonNullElse(object.describe(), object.label() + ".");
    }

    /** Properties of what is answered; {@code depth} references have been followed already. */
    private Map<String, Object> answered(List<FieldPath> paths, int depth) {
        var properties = new LinkedHashMap<String, Object>();
        for (var group : PathGroup.of(paths, depth)) {
            var field = group.field();
            if (group.behind().isEmpty()) {
                properties.put(field.name(), nullable(schema(field), field));
                continue;
            }
            var members = new LinkedHashMap<String, Object>();
            if (group.itself()) {
                members.put(PlainRecords.KEY, schema(field));
            }
            members.putAll(answered(group.behind(), depth + 1));
            properties.put(
                    field.name(),
                    map(
                            "type",
                            List.of("object", "null"),
                            "description",
                            described(field),
                            "properties",
                            members));
        }
        return properties;
    }

    /** The schema of what is sent; gives its name. */
    String input(String name, ResourceType resource, Operation operation) {
        schemas.computeIfAbsent(
                name,
                _ ->
                        inputSchema(
                                resource,
                                resource.tree(operation).orElseThrow(),
                                operation == Operation.CREATE));
        return name;
    }

    /** What is sent to create or change by key: the key may be left to the address. */
    String saved(String name, ResourceType resource) {
        schemas.computeIfAbsent(
                name,
                _ -> {
                    var schema =
                            inputSchema(
                                    resource, resource.tree(Operation.CREATE).orElseThrow(), false);
                    schema.put(
                            "description",
                            "A new record needs all that creating needs; of one that is there only"
                                    + " what is named is changed.");
                    return schema;
                });
        return name;
    }

    private Map<String, Object> inputSchema(
            ResourceType resource, FieldTree tree, boolean creates) {
        var object = resource.object();
        var properties = new LinkedHashMap<String, Object>();
        var required = new ArrayList<String>();
        for (var path : tree.paths()) {
            var field = path.last();
            boolean needed =
                    (field.required() || object.key().contains(field.name()))
                            && field.defaultValue() == null;
            properties.put(field.name(), needed ? schema(field) : nullable(schema(field), field));
            if (needed && creates) {
                required.add(field.name());
            }
        }
        for (var part : tree.parts()) {
            properties.put(part.part().name(), items(part, creates));
        }
        var schema =
                map("type", "object", "description", described(object), "properties", properties);
        if (!required.isEmpty()) {
            schema.put("required", required);
        }
        schema.put("additionalProperties", false);
        return schema;
    }

    private Map<String, Object> items(FieldTree.PartTree part, boolean creates) {
        var properties = new LinkedHashMap<String, Object>();
        var required = new ArrayList<String>();
        if (!creates) {
            properties.put(
                    "line",
                    map(
                            "type",
                            "integer",
                            "format",
                            "int64",
                            "description",
                            "The item to change; a new one has none."));
        }
        for (var path : part.paths()) {
            var field = path.last();
            boolean needed = field.required() && field.defaultValue() == null;
            properties.put(field.name(), needed ? schema(field) : nullable(schema(field), field));
            if (needed && creates) {
                required.add(field.name());
            }
        }
        var item = map("type", "object", "properties", properties);
        if (!required.isEmpty()) {
            item.put("required", required);
        }
        item.put("additionalProperties", false);
        return map(
                "type",
                "array",
                "description",
                part.part().describe() == null ? part.part().label() + "." : part.part().describe(),
                "items",
                item);
    }

    private Map<String, Object> schema(Field field) {
        var schema = new LinkedHashMap<>(field.type().schema());
        schema.put("title", field.label());
        schema.put("description", described(field));
        var example = example(field);
        if (example != null) {
            schema.put("examples", List.of(example));
        }
        return schema;
    }

    private static @org.jspecify.annotations.Nullable Object example(Field field) {
        if (field.isReference()) {
            return null;
        }
        if (field.type() instanceof TextType text && text.keyword() == TypeKeyword.TEXT) {
            // The label says more than any text made up here.
            return text.pattern() != null
                    ? null
                    : text.isLocalised()
                            ? text.example()
                            : field.label()
                                    .substring(0, Math.min(field.label().length(), text.length()));
        }
        return field.type().example();
    }

    private String described(Field field) {
        var words =
                new StringBuilder(
                        Objects.requireNonNullElse(field.describe(), field.label() + "."));
        if (field.type() instanceof NumberType number && !number.unit().isEmpty()) {
            words.append(' ').append(number.unit());
        }
        if (field.type() instanceof FieldType.Reference reference) {
            var target = release.target(reference);
            words.append(
                    " The key of %s%s."
                            .formatted(
                                    sandpiper.model.Names.withArticle(target.label()),
                                    target.key().isEmpty()
                                            ? ""
                                            : " (" + String.join(", ", target.key()) + ")"));
        }
        if (field.type().keyword() == TypeKeyword.DURATION) {
            words.append(" As in P1DT6H.");
        }
        return words.toString();
    }

    private static Map<String, Object> nullable(Map<String, Object> schema, Field field) {
        if (field.required() && field.defaultValue() == null) {
            return schema;
        }
        var nullable = new LinkedHashMap<>(schema);
        nullable.put("type", List.of(Objects.requireNonNull(schema.get("type")), "null"));
        if (schema.get("enum") instanceof List<?> codes) {
            var withNull = new ArrayList<@org.jspecify.annotations.Nullable Object>(codes);
            withNull.add(null);
            nullable.put("enum", withNull);
        }
        return nullable;
    }

    String page(String name, String item) {
        schemas.put(
                name,
                map(
                        "type", "object",
                        "properties",
                                map(
                                        "items",
                                                map(
                                                        "type",
                                                        "array",
                                                        "items",
                                                        map(
                                                                "$ref",
                                                                "#/components/schemas/" + item)),
                                        "next",
                                                map(
                                                        "type",
                                                        "string",
                                                        "description",
                                                        "The cursor of the next page; absent on the"
                                                                + " last."),
                                        "count",
                                                map(
                                                        "type",
                                                        "integer",
                                                        "format",
                                                        "int64",
                                                        "description",
                                                        "All that match, when asked for.")),
                        "required", List.of("items")));
        return name;
    }

    /** The schema of problems. */
    String problem() {
        schemas.put(
                "Problem",
                map(
                        "type",
                        "object",
                        "description",
                        "What went wrong (RFC 9457).",
                        "properties",
                        map(
                                "type", map("type", "string"),
                                "title",
                                        map(
                                                "type",
                                                "string",
                                                "description",
                                                "The kind of problem."),
                                "status",
                                        map(
                                                "type",
                                                "integer",
                                                "format",
                                                "int32",
                                                "description",
                                                "The HTTP status."),
                                "detail",
                                        map(
                                                "type",
                                                "string",
                                                "description",
                                                "A sentence that says what to do."),
                                "errors",
                                        map(
                                                "type", "array",
                                                "description",
                                                        "Each thing that is wrong, with its place.",
                                                "items",
                                                        map(
                                                                "type", "object",
                                                                "properties",
                                                                        map(
                                                                                "pointer",
                                                                                        map(
                                                                                                "type",
                                                                                                "string",
                                                                                                "description",
                                                                                                "JSON Pointer"
                                                                                                    + " (RFC"
                                                                                                    + " 6901)"
                                                                                                    + " into"
                                                                                                    + " the body."),
                                                                                "code",
                                                                                        map(
                                                                                                "type",
                                                                                                "string",
                                                                                                "description",
                                                                                                "Stable;"
                                                                                                    + " for programs."),
                                                                                "message",
                                                                                        map(
                                                                                                "type",
                                                                                                "string",
                                                                                                "description",
                                                                                                "For people.")),
                                                                "required",
                                                                        List.of(
                                                                                "pointer", "code",
                                                                                "message")))),
                        "required",
                        List.of("title", "status", "detail")));
        return "Problem";
    }

    String batchInput() {
        schemas.put(
                "Batch",
                map(
                        "type", "object",
                        "properties",
                                map(
                                        "items",
                                        map(
                                                "type",
                                                "array",
                                                "maxItems",
                                                1000L,
                                                "items",
                                                map(
                                                        "type", "object",
                                                        "properties",
                                                                map(
                                                                        "do",
                                                                                map(
                                                                                        "type",
                                                                                        "string",
                                                                                        "enum",
                                                                                        List.of(
                                                                                                "create",
                                                                                                "update",
                                                                                                "save")),
                                                                        "key",
                                                                                map(
                                                                                        "type",
                                                                                        "string",
                                                                                        "description",
                                                                                        "The record"
                                                                                            + " to update"
                                                                                            + " or save."),
                                                                        "version",
                                                                                map(
                                                                                        "type",
                                                                                        "integer",
                                                                                        "format",
                                                                                        "int64",
                                                                                        "description",
                                                                                        "The version"
                                                                                            + " that"
                                                                                            + " was read."),
                                                                        "values",
                                                                                map(
                                                                                        "type",
                                                                                        "object",
                                                                                        "description",
                                                                                        "As for the"
                                                                                            + " single"
                                                                                            + " operation.")),
                                                        "required", List.of("do", "values")))),
                        "required", List.of("items")));
        return "Batch";
    }

    String batchResult() {
        schemas.put(
                "BatchResult",
                map(
                        "type", "object",
                        "properties",
                                map(
                                        "done", map("type", "integer", "format", "int32"),
                                        "failed", map("type", "integer", "format", "int32"),
                                        "results",
                                                map(
                                                        "type",
                                                        "array",
                                                        "items",
                                                        map(
                                                                "type", "object",
                                                                "properties",
                                                                        map(
                                                                                "status",
                                                                                        map(
                                                                                                "type",
                                                                                                "integer",
                                                                                                "format",
                                                                                                "int32"),
                                                                                "id",
                                                                                        map(
                                                                                                "type",
                                                                                                "string",
                                                                                                "format",
                                                                                                "uuid"),
                                                                                "key",
                                                                                        map(
                                                                                                "type",
                                                                                                "string"),
                                                                                "version",
                                                                                        map(
                                                                                                "type",
                                                                                                "integer",
                                                                                                "format",
                                                                                                "int64"),
                                                                                "problem",
                                                                                        map(
                                                                                                "$ref",
                                                                                                "#/components/schemas/Problem")),
                                                                "required", List.of("status")))),
                        "required", List.of("done", "failed", "results")));
        return "BatchResult";
    }

    /** A condition a caller could write. */
    String filterExample(ResourceType resource) {
        return resource.filterable().stream()
                .map(path ->
                        switch (path.last().type()) {
                            case sandpiper.model.type.ChoiceType choice ->
                                    path.written() + " = \"" + choice.example() + "\"";
                            case sandpiper.model.type.TemporalType temporal
                                    when temporal.keyword() == TypeKeyword.DATE ->
                                    path.written() + " >= date(\"2026-05-01\")";
                            case NumberType _ -> path.written() + " > 10";
                            case TextType _ -> "starts with(" + path.written() + ", \"A\")";
                            default -> "";
                        })
                .filter(text -> !text.isEmpty())
                .findFirst()
                .orElse("");
    }
}
