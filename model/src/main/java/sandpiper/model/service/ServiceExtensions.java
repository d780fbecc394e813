package sandpiper.model.service;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.contract.ContractNames;
import sandpiper.model.definition.PackageSight;
import sandpiper.model.definition.PackageType;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;
import sandpiper.model.source.Source;
import sandpiper.model.type.FileType;
import sandpiper.model.yaml.YamlNode;

/**
 * Adds to services what other packages say: fields that those packages added to the objects, and
 * nothing else, so that a contract only grows by what is theirs.
 */
public final class ServiceExtensions {
    private static final List<Operation> OPERATIONS =
            List.of(Operation.CREATE, Operation.READ, Operation.UPDATE, Operation.QUERY);

    private final Map<String, PackageType> packages;
    private final List<ServiceType> services;

    /** {@code services} takes them with what is added. */
    public ServiceExtensions(Map<String, PackageType> packages, List<ServiceType> services) {
        this.packages = packages;
        this.services = services;
    }

    /** Adds what stands in a file of a package. */
    public void add(Source source, String packageName) {
        var root = source.root();
        var name = Source.text(root, "extend").orElse("");
        int version = Source.whole(root, "version", 1);
        var found = find(source, name, version);
        if (found.isEmpty()) {
            return;
        }
        var service = found.get();
        if (service.packageName().equals(packageName)) {
            source.error(
                    DefinitionCode.NOT_FOR_THIS_TYPE,
                    "%s is a service of this package; change it in its own file."
                            .formatted(service.titled()),
                    null,
                    "extend");
            return;
        }
        if (!PackageSight.reaches(packages, packageName, service.packageName())) {
            source.error(
                    DefinitionCode.NOT_VISIBLE,
                    "%s is in the package %s, which %s does not depend on; add it to \"depends\" in package.yaml."
                            .formatted(service.titled(), service.packageName(), packageName),
                    null,
                    "extend");
            return;
        }
        var resources = new ArrayList<>(service.resources());
        for (var entry : Source.mapping(root, "resources").entries()) {
            if (entry.value() instanceof YamlNode.Mapping more) {
                resource(source, packageName, resources, entry.key().text(), more);
            }
        }
        replace(source, service, resources);
    }

    private Optional<ServiceType> find(Source source, String name, int version) {
        var found =
                services.stream()
                        .filter(one -> one.name().equals(name) && one.version() == version)
                        .findFirst();
        if (found.isEmpty() && !name.isEmpty()) {
            source.error(
                    DefinitionCode.WRONG_VALUE,
                    "There is no service %s v%d.".formatted(name, version),
                    Nearest.to(name, services.stream().map(ServiceType::name).toList())
                            .filter(near -> !near.equals(name))
                            .orElse(null),
                    "extend");
        }
        return found;
    }

    private static void resource(
            Source source,
            String packageName,
            List<ResourceType> resources,
            String name,
            YamlNode.Mapping more) {
        var names = resources.stream().map(ResourceType::name).toList();
        int at = names.indexOf(name);
        if (at < 0) {
            source.errorAtKey(
                    DefinitionCode.WRONG_VALUE,
                    "There is no resource %s.".formatted(Quoted.of(name)),
                    Nearest.to(name, names).orElse(null),
                    "resources",
                    name);
            return;
        }
        var before = resources.get(at);
        var trees = new EnumMap<Operation, FieldTree>(Operation.class);
        trees.putAll(before.trees());
        for (var operation : OPERATIONS) {
            var key = operation.name().toLowerCase(Locale.ROOT);
            var fields = fields(source, packageName, before, key, more);
            var tree = trees.get(operation);
            if (!fields.isEmpty() && tree == null) {
                source.errorAtKey(
                        DefinitionCode.NOT_FOR_THIS_TYPE,
                        "%s does not offer %s, so nothing can be added to it.".formatted(name, key),
                        null,
                        "resources",
                        name,
                        key);
            } else if (!fields.isEmpty() && tree != null) {
                trees.put(
                        operation,
                        new FieldTree(both(tree.paths(), fields), tree.parts(), tree.annotated()));
            }
        }
        resources.set(
                at,
                new ResourceType(
                        name,
                        before.object(),
                        before.describe(),
                        trees,
                        both(
                                before.filterable(),
                                fields(source, packageName, before, "filter", more)),
                        before.filterableItems(),
                        both(before.sortable(), fields(source, packageName, before, "sort", more)),
                        before.calls(),
                        before.where(),
                        before.presets(),
                        before.versioned()));
    }

    private static List<FieldPath> both(List<FieldPath> some, List<FieldPath> more) {
        var all = new ArrayList<>(some);
        for (var path : more) {
            if (all.stream().noneMatch(one -> one.written().equals(path.written()))) {
                all.add(path);
            }
        }
        return all;
    }

    private static List<FieldPath> fields(
            Source source,
            String packageName,
            ResourceType resource,
            String key,
            YamlNode.Mapping more) {
        var paths = new ArrayList<FieldPath>();
        for (var name : String.join(",", Source.texts(more, key)).split(",", -1)) {
            if (!name.isBlank()) {
                field(source, packageName, resource, key, name.strip())
                        .map(FieldPath::of)
                        .ifPresent(paths::add);
            }
        }
        return paths;
    }

    private static Optional<Field> field(
            Source source, String packageName, ResourceType resource, String key, String name) {
        var object = resource.object();
        var place = new String[] {"resources", resource.name(), key};
        var found = object.fields().find(name);
        var own =
                object.fields().stream()
                        .filter(field -> packageName.equals(field.addedBy()))
                        .map(Field::name)
                        .toList();
        if (found.isEmpty() || !own.contains(name)) {
            source.error(
                    found.isEmpty() ? DefinitionCode.UNKNOWN_FIELD : DefinitionCode.NOT_VISIBLE,
                    found.isEmpty()
                            ? "%s has no field %s.".formatted(object.name(), Quoted.of(name))
                            : "%s of %s is not added by %s; a package adds only what it has added to the object."
                                    .formatted(name, object.name(), packageName),
                    Nearest.to(name, own).orElse(null),
                    place);
            return Optional.empty();
        }
        boolean taken = key.equals("create") || key.equals("update");
        boolean compared = key.equals("filter") || key.equals("sort");
        if (taken && found.get().readOnly()) {
            source.error(
                    DefinitionCode.NOT_WRITABLE,
                    "%s is set by the service and cannot be written.".formatted(name),
                    null,
                    place);
            return Optional.empty();
        }
        if (compared && found.get().type() instanceof FileType) {
            source.error(
                    DefinitionCode.BAD_FIELD_LIST,
                    "%s is a file; it cannot be used to %s.".formatted(name, key),
                    null,
                    place);
            return Optional.empty();
        }
        if (compared && found.get().onRead()) {
            source.error(
                    DefinitionCode.BAD_FIELD_LIST,
                    "%s is worked out each time it is read; it cannot be used to %s."
                            .formatted(name, key),
                    null,
                    place);
            return Optional.empty();
        }
        return found;
    }

    private void replace(Source source, ServiceType service, List<ResourceType> resources) {
        var extended =
                new ServiceType(
                        service.name(),
                        service.version(),
                        service.packageName(),
                        service.label(),
                        service.describe(),
                        service.protocols(),
                        resources,
                        service.functions(),
                        service.events());
        var before = ContractNames.of(service);
        ContractNames.of(extended).stream()
                .filter(one -> before.stream().noneMatch(old -> old.said().equals(one.said())))
                .forEach(one ->
                        source.error(DefinitionCode.NAME_COLLISION, one.said(), null, "resources"));
        services.set(services.indexOf(service), extended);
    }
}
