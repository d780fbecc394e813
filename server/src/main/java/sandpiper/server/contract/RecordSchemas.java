package sandpiper.server.contract;

import io.swagger.v3.oas.models.media.Schema;
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
import sandpiper.model.release.Part;
import sandpiper.model.release.PathGroup;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;

/** The schemas of records as they are answered and sent, each made when it is first needed. */
final class RecordSchemas {
    private static final String LINE = "line";

    private final FieldSchemas fields;
    private final Map<String, Schema<?>> schemas = new LinkedHashMap<>();

    RecordSchemas(FieldSchemas fields) {
        this.fields = fields;
    }

    Map<String, Schema<?>> all() {
        return schemas;
    }

    /** Keeps a schema that is made elsewhere; gives its name. */
    String put(String name, Schema<?> schema) {
        schemas.put(name, schema);
        return name;
    }

    /** The schema of a record as it is answered; gives its name. */
    String answer(String name, ResourceType resource, Operation operation) {
        if (!schemas.containsKey(name)) {
            var tree = resource.tree(operation).orElseThrow();
            if (operation == Operation.QUERY) {
                // What can be asked for besides, see the parameter "fields".
                tree = tree.beside(resource.tree(Operation.READ).orElse(FieldTree.EMPTY));
            }
            put(name, answered(resource.object(), tree));
        }
        return name;
    }

    private Schema<?> answered(ObjectType object, FieldTree tree) {
        var properties = new LinkedHashMap<String, Schema<?>>();
        properties.put(
                "id",
                ContractSchema.text()
                        .format("uuid")
                        .description("The record's public id.")
                        .readOnly(true));
        properties.put(
                "version",
                ContractSchema.number().description("Grows with each change.").readOnly(true));
        properties.putAll(answered(tree.paths(), 0));
        for (var part : tree.parts()) {
            var item = new LinkedHashMap<String, Schema<?>>();
            item.put(
                    LINE,
                    ContractSchema.number().description("Identifies the item within its record."));
            item.putAll(answered(part.paths(), 0));
            var items = ContractSchema.object(item);
            items.setRequired(List.of(LINE));
            properties.put(
                    part.part().name(),
                    ContractSchema.list(items).description(described(part.part())));
        }
        var schema = ContractSchema.object(properties);
        schema.setRequired(List.of("id", "version"));
        return schema.description(described(object));
    }

    private static String described(ObjectType object) {
        return Objects.requireNonNullElse(object.describe(), object.label() + ".");
    }

    private static String described(Part part) {
        return Objects.requireNonNullElse(part.describe(), part.label() + ".");
    }

    /** Properties of what is answered; {@code depth} references have been followed already. */
    private Map<String, Schema<?>> answered(List<FieldPath> paths, int depth) {
        var properties = new LinkedHashMap<String, Schema<?>>();
        for (var group : PathGroup.of(paths, depth)) {
            var field = group.field();
            properties.put(
                    field.name(),
                    group.behind().isEmpty()
                            ? fields.answered(field)
                            : ContractSchema.nullable(behind(group, depth)));
        }
        return properties;
    }

    /** A reference with what is shown of the record behind it. */
    private Schema<?> behind(PathGroup group, int depth) {
        var members = new LinkedHashMap<String, Schema<?>>();
        if (group.itself()) {
            members.put(PlainRecords.KEY, fields.of(group.field()));
        }
        members.putAll(answered(group.behind(), depth + 1));
        return ContractSchema.object(members).description(fields.described(group.field()));
    }

    /** The schema of what is sent to create a record; gives its name. */
    String created(String name, ResourceType resource) {
        return schemas.containsKey(name)
                ? name
                : put(name, input(resource, resource.tree(Operation.CREATE).orElseThrow(), true));
    }

    /** The schema of what is sent to change a record; gives its name. */
    String changed(String name, ResourceType resource) {
        return schemas.containsKey(name)
                ? name
                : put(name, input(resource, resource.tree(Operation.UPDATE).orElseThrow(), false));
    }

    /** What is sent to create or change by key: the key may be left to the address. */
    String saved(String name, ResourceType resource) {
        return schemas.containsKey(name)
                ? name
                : put(
                        name,
                        input(resource, resource.tree(Operation.CREATE).orElseThrow(), false)
                                .description(
                                        "A new record needs all that creating needs; of one that"
                                                + " is there only what is named is changed."));
    }

    private Schema<?> input(ResourceType resource, FieldTree tree, boolean creates) {
        var object = resource.object();
        var properties = new LinkedHashMap<String, Schema<?>>();
        var required = new ArrayList<String>();
        for (var path : tree.paths()) {
            var field = path.last();
            put(field, object.key().contains(field.name()), properties, required);
        }
        for (var part : tree.parts()) {
            properties.put(part.part().name(), items(part, creates));
        }
        return ContractSchema.closed(properties, creates ? required : List.of())
                .description(described(object));
    }

    private Schema<?> items(FieldTree.PartTree part, boolean creates) {
        var properties = new LinkedHashMap<String, Schema<?>>();
        var required = new ArrayList<String>();
        if (!creates) {
            properties.put(
                    LINE,
                    ContractSchema.number().description("The item to change; a new one has none."));
        }
        part.paths().forEach(path -> put(path.last(), false, properties, required));
        var items =
                ContractSchema.list(
                        ContractSchema.closed(properties, creates ? required : List.of()));
        // Null is a list without any, as it takes away a value of a field.
        return ContractSchema.nullable(items).description(described(part.part()));
    }

    private void put(
            Field field, boolean isKey, Map<String, Schema<?>> properties, List<String> required) {
        boolean needed = field.required() || isKey;
        properties.put(field.name(), fields.sent(field, needed));
        if (needed && field.defaultValue() == null) {
            required.add(field.name());
        }
    }

    /** A page of a query; gives its name. */
    String page(String name, String item) {
        var properties = new LinkedHashMap<String, Schema<?>>();
        properties.put("items", ContractSchema.list(ContractSchema.ref(item)));
        properties.put(
                "next",
                ContractSchema.text()
                        .description("The cursor of the next page; absent on the last."));
        properties.put(
                "count", ContractSchema.number().description("All that match, when asked for."));
        var page = ContractSchema.object(properties);
        page.setRequired(List.of("items"));
        return put(name, page);
    }
}
