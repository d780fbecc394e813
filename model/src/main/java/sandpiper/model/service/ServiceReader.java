package sandpiper.model.service;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.condition.SortKey;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.contract.ContractNames;
import sandpiper.model.definition.DefaultValue;
import sandpiper.model.definition.LogicText;
import sandpiper.model.logic.Reports;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;
import sandpiper.model.source.DefaultReader;
import sandpiper.model.source.Source;
import sandpiper.model.type.FileType;
import sandpiper.model.yaml.YamlNode;

/** Reads one service; needs all objects to be known. */
public final class ServiceReader {
    /** What else stands in the addresses and grants of a service. */
    private static final List<String> RESERVED = List.of("functions", "events");

    private final Source source;
    private final String packageName;
    private final Map<String, ObjectType> objects;
    private final Release release;
    private TravellingList travelling = TravellingList.NONE;

    /** {@code release} has the same objects, for what depends on their formulas. */
    public ServiceReader(
            Source source, String packageName, Map<String, ObjectType> objects, Release release) {
        this.source = source;
        this.packageName = packageName;
        this.objects = objects;
        this.release = release;
    }

    /** The service of a name. */
    public ServiceType read(String name) {
        var root = source.root();
        travelling = TravellingList.of(source, name, release);
        var protocols = Source.texts(root, "protocols");
        var resources = new ArrayList<ResourceType>();
        for (var entry : Source.mapping(root, "resources").entries()) {
            if (RESERVED.contains(entry.key().text())) {
                source.errorAt(
                        entry.key().place(),
                        DefinitionCode.RESERVED_NAME,
                        "%s has a meaning already and cannot be the name of a resource; choose another."
                                .formatted(Quoted.of(entry.key().text())),
                        null);
            }
            if (entry.value() instanceof YamlNode.Mapping definition) {
                resource(entry.key().text(), definition).ifPresent(resources::add);
            }
        }
        var calls = new CallReader(source, release);
        var service =
                new ServiceType(
                        name,
                        Source.whole(root, "version", 1),
                        packageName,
                        Source.text(root, "label").orElseGet(() -> Names.label(name)),
                        Source.text(root, "describe").orElse(null),
                        protocols.isEmpty() ? List.of("rest") : protocols,
                        resources,
                        calls.functions(root, resources),
                        calls.events(root));
        ContractNames.of(service)
                .forEach(one ->
                        source.errorAtKey(
                                DefinitionCode.NAME_COLLISION,
                                one.said(),
                                null,
                                one.place().toArray(String[]::new)));
        return service;
    }

    private Optional<ResourceType> resource(String name, YamlNode.Mapping definition) {
        var objectName = Source.text(definition, "object").orElse("");
        var object = objects.get(objectName);
        if (object == null) {
            if (!objectName.isEmpty()) {
                source.error(
                        DefinitionCode.UNKNOWN_OBJECT,
                        "There is no object %s.".formatted(Quoted.of(objectName)),
                        Nearest.to(objectName, objects.keySet()).orElse(null),
                        "resources",
                        name,
                        "object");
            }
            return Optional.empty();
        }
        var trees = new EnumMap<Operation, FieldTree>(Operation.class);
        tree(object, name, definition, "create")
                .ifPresent(tree ->
                        trees.put(Operation.CREATE, writable(object, tree, name, "create")));
        tree(object, name, definition, "read").ifPresent(tree -> trees.put(Operation.READ, tree));
        tree(object, name, definition, "update")
                .ifPresent(tree ->
                        trees.put(Operation.UPDATE, writable(object, tree, name, "update")));
        tree(object, name, definition, "query").ifPresent(tree -> trees.put(Operation.QUERY, tree));
        if (Source.flag(definition, "remove")) {
            trees.put(Operation.REMOVE, FieldTree.EMPTY);
        }
        var calls = new CallReader(source, release).calls(object, name, definition);
        if (trees.isEmpty() && calls.isEmpty()) {
            source.errorAtKey(
                    DefinitionCode.MISSING_KEY,
                    "The resource offers nothing; give it create, read, update, query, remove or"
                            + " calls.",
                    null,
                    "resources",
                    name);
        }
        var presets = presets(object, name, definition, trees.get(Operation.CREATE));
        requireWhatCreateNeeds(object, trees.get(Operation.CREATE), presets, name);
        var filter = compared(object, name, definition, "filter");
        return Optional.of(
                new ResourceType(
                        name,
                        object,
                        Source.text(definition, "describe").orElse(null),
                        trees,
                        filter.paths(),
                        filter.parts(),
                        compared(object, name, definition, "sort").paths(),
                        calls,
                        where(object, definition),
                        presets,
                        Source.flag(definition, "needsVersion")));
    }

    private @Nullable LogicText where(ObjectType object, YamlNode.Mapping definition) {
        var text = source.logic(definition, "where");
        if (text == null) {
            return null;
        }
        var record = release.recordType(object);
        // What day it is changes nothing about whether the condition is right.
        var checked =
                ConditionChecker.check(
                        text.text(), record, Clock.fixed(Instant.EPOCH, object.zone()));
        if (checked instanceof Checked.Rejected(var problems)) {
            Reports.add(text, problems, source.diagnostics());
        }
        return text;
    }

    private Map<Field, DefaultValue> presets(
            ObjectType object,
            String resource,
            YamlNode.Mapping definition,
            @Nullable FieldTree create) {
        var presets = new LinkedHashMap<Field, DefaultValue>();
        for (var entry : Source.mapping(definition, "preset").entries()) {
            var name = entry.key().text();
            var place = new String[] {"resources", resource, "preset", name};
            var field = object.fields().find(name);
            if (field.isEmpty()) {
                source.error(
                        DefinitionCode.UNKNOWN_FIELD,
                        "%s has no field %s.".formatted(object.name(), Quoted.of(name)),
                        Nearest.to(name, object.fields().names()).orElse(null),
                        place);
            } else if (create == null || create.hasOwn(name) || field.get().isDerived()) {
                source.error(
                        DefinitionCode.NOT_WRITABLE,
                        create == null
                                ? "A preset needs create: it is the value of new records."
                                : field.get().isDerived()
                                        ? "%s is worked out and cannot be preset.".formatted(name)
                                        : "%s is preset and also among the fields of create; take it out of one of them."
                                                .formatted(name),
                        null,
                        place);
            } else if (entry.value() instanceof YamlNode.Scalar scalar) {
                var defaultValue =
                        DefaultReader.read(
                                source, "preset", field.get().type(), scalar.text(), place);
                if (defaultValue != null) {
                    presets.put(field.get(), defaultValue);
                }
            }
        }
        return presets;
    }

    private Optional<FieldTree> tree(
            ObjectType object, String resource, YamlNode.Mapping definition, String operation) {
        if (definition.get(operation).isEmpty()) {
            return Optional.empty();
        }
        var pieces = Source.texts(Source.mapping(definition, operation), "fields");
        if (pieces.isEmpty()) {
            return Optional.empty();
        }
        var reader =
                new FieldListReader(
                        source, objects, List.of("resources", resource, operation, "fields"));
        return Optional.of(travelling.with(reader.read(object, pieces), object, operation));
    }

    /** What records may be filtered or sorted by; line items only where they are named. */
    private FieldTree compared(
            ObjectType object, String resource, YamlNode.Mapping definition, String key) {
        var query = Source.mapping(definition, "query");
        var pieces = Source.texts(query, key);
        if (pieces.isEmpty()) {
            return FieldTree.EMPTY;
        }
        var place = List.of("resources", resource, "query", key);
        var tree = new FieldListReader(source, objects, place).read(object, pieces);
        boolean all = FieldListReader.namesAll(pieces);
        var items =
                tree.parts().stream()
                        .filter(one -> !all || FieldListReader.namesPart(pieces, one.part().name()))
                        .toList();
        if (!items.isEmpty() && key.equals("sort")) {
            source.error(
                    DefinitionCode.BAD_FIELD_LIST,
                    "Line items cannot be used to sort.",
                    null,
                    place.toArray(String[]::new));
        }
        var answered = tree.paths().stream().filter(path -> isAnswered(object, path)).toList();
        if (!all) {
            tree.paths().stream()
                    .filter(path -> !answered.contains(path))
                    .forEach(path -> cannotBeWorkedOut(path.written(), key, place));
        }
        return new FieldTree(
                compared(answered, all, key, place),
                items.stream().map(one -> items(pieces, one, place)).toList());
    }

    private void cannotBeWorkedOut(String what, String key, List<String> place) {
        source.error(
                DefinitionCode.BAD_FIELD_LIST,
                "%s is worked out each time it is read, in a way the database cannot; it cannot be used to %s."
                        .formatted(what, key),
                null,
                place.toArray(String[]::new));
    }

    /** Fields of line items; what cannot be compared is an error where it is named. */
    private FieldTree.PartTree items(
            List<String> pieces, FieldTree.PartTree tree, List<String> place) {
        var name = tree.part().name();
        boolean all = !FieldListReader.namesSomeOf(pieces, name);
        var stored = tree.paths().stream().filter(path -> !path.last().onRead()).toList();
        if (!all) {
            tree.paths().stream()
                    .filter(path -> path.last().onRead())
                    .forEach(path ->
                            cannotBeWorkedOut(name + "." + path.written(), "filter", place));
        }
        return new FieldTree.PartTree(tree.part(), compared(stored, all, "filter", place));
    }

    /** A file is no value to compare others with; what it is called may be. */
    private List<FieldPath> compared(
            List<FieldPath> paths, boolean all, String key, List<String> place) {
        var files = paths.stream().filter(path -> path.last().type() instanceof FileType).toList();
        if (!all) {
            files.forEach(path ->
                    source.error(
                            DefinitionCode.BAD_FIELD_LIST,
                            "%s is a file; it cannot be used to %s.".formatted(path.written(), key),
                            null,
                            place.toArray(String[]::new)));
        }
        return paths.stream().filter(path -> !files.contains(path)).toList();
    }

    private boolean isAnswered(ObjectType object, FieldPath path) {
        return !path.last().onRead()
                || SortKey.of(
                                release.recordType(object),
                                path.steps().stream().map(Field::name).toList())
                        .isPresent();
    }

    /**
     * What a caller may write: without what only the service sets when all was said, and an error
     * when it was named.
     */
    private FieldTree writable(
            ObjectType object, FieldTree tree, String resource, String operation) {
        var named =
                Source.texts(
                        Source.mapping(
                                Source.mapping(
                                        Source.mapping(source.root(), "resources"), resource),
                                operation),
                        "fields");
        boolean all = FieldListReader.namesAll(named);
        for (var path : tree.paths()) {
            if (!path.isOwn() && !all) {
                notWritable(
                        resource,
                        operation,
                        "%s belongs to another record and cannot be written here."
                                .formatted(path.written()));
            } else if (isServiceSet(object, path) && !all) {
                notWritable(
                        resource,
                        operation,
                        "%s is set by the service and cannot be written."
                                .formatted(path.written()));
            }
        }
        return new FieldTree(
                tree.paths().stream()
                        .filter(path -> path.isOwn() && !isServiceSet(object, path))
                        .toList(),
                tree.parts().stream()
                        .map(part ->
                                new FieldTree.PartTree(
                                        part.part(),
                                        part.paths().stream()
                                                .filter(path ->
                                                        path.isOwn() && !path.last().readOnly())
                                                .toList()))
                        .toList());
    }

    private void notWritable(String resource, String operation, String message) {
        source.error(
                DefinitionCode.NOT_WRITABLE,
                message,
                null,
                "resources",
                resource,
                operation,
                "fields");
    }

    private static boolean isServiceSet(ObjectType object, FieldPath path) {
        return path.last().readOnly() || object.isNumbered(path.last());
    }

    private void requireWhatCreateNeeds(
            ObjectType object,
            @Nullable FieldTree create,
            Map<Field, DefaultValue> presets,
            String resource) {
        if (create == null) {
            return;
        }
        var missing =
                object.fields().stream()
                        .filter(field -> field.required() || object.key().contains(field.name()))
                        .filter(field ->
                                field.defaultValue() == null
                                        && !field.readOnly()
                                        && !object.isNumbered(field))
                        .filter(field ->
                                !create.hasOwn(field.name()) && !presets.containsKey(field))
                        .map(sandpiper.model.release.Field::name)
                        .toList();
        if (!missing.isEmpty()) {
            source.error(
                    DefinitionCode.REQUIRED_NOT_GIVEN,
                    "No record could be created: %s is required but not among the fields."
                            .formatted(String.join(", ", missing)),
                    missing.getFirst(),
                    "resources",
                    resource,
                    "create",
                    "fields");
        }
    }
}
