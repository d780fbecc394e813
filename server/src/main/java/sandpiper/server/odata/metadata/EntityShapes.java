package sandpiper.server.odata.metadata;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.apache.olingo.commons.api.edm.FullQualifiedName;
import sandpiper.model.contract.ResourceNames;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.PathGroup;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.odata.metadata.EntityShape.Items;
import sandpiper.server.odata.metadata.EntityShape.ToOne;
import sandpiper.server.odata.metadata.EntityShape.Use;
import sandpiper.server.odata.metadata.EntityShape.Value;

/** Makes the entity type of a resource: all its operations show or take together. */
public final class EntityShapes {
    private final Release release;
    private final String namespace;
    private final ResourceType resource;

    private EntityShapes(Release release, String namespace, ResourceType resource) {
        this.release = release;
        this.namespace = namespace;
        this.resource = resource;
    }

    static EntityShape of(Release release, String namespace, ResourceType resource) {
        return new EntityShapes(release, namespace, resource).whole();
    }

    private EntityShape whole() {
        var name = ResourceNames.one(resource);
        var object = resource.object();
        var paths = new LinkedHashMap<String, FieldPath>();
        var parts = new LinkedHashMap<String, Part>();
        trees(Operation.READ, Operation.QUERY, Operation.UPDATE, Operation.CREATE)
                .forEach(tree -> {
                    tree.paths().forEach(path -> paths.putIfAbsent(path.written(), path));
                    tree.parts()
                            .forEach(part -> parts.putIfAbsent(part.part().name(), part.part()));
                });
        var made = record(name, object, List.of(), List.copyOf(paths.values()), true);
        var items = parts.values().stream().map(part -> items(name, object, part)).toList();
        return new EntityShape(
                made.type(), object, true, key(made), made.values(), made.references(), items);
    }

    private Stream<FieldTree> trees(Operation... operations) {
        return Stream.of(operations).map(resource::tree).flatMap(Optional::stream);
    }

    /** The natural key where it is always shown, else the public id. */
    private List<String> key(EntityShape shape) {
        var object = resource.object();
        boolean shown =
                !object.key().isEmpty()
                        && trees(Operation.READ, Operation.QUERY).findAny().isPresent()
                        && trees(Operation.READ, Operation.QUERY)
                                .allMatch(tree -> object.key().stream().allMatch(tree::hasOwn));
        return shown
                ? object.key().stream()
                        .map(field ->
                                shape.values().stream()
                                        .filter(value -> value.path().written().equals(field))
                                        .findFirst()
                                        .orElseThrow()
                                        .name())
                        .toList()
                : List.of(EntityShape.ID);
    }

    /** {@code before} are the references on the way to what is described. */
    private EntityShape record(
            String name,
            ObjectType object,
            List<Field> before,
            List<FieldPath> paths,
            boolean own) {
        var values = new ArrayList<Value>();
        var references = new ArrayList<ToOne>();
        for (var group : PathGroup.of(paths, before.size())) {
            var field = group.field();
            var path = longer(before, field);
            if (!field.isReference()) {
                values.add(new Value(field.name(), path, use(path)));
                continue;
            }
            if (group.itself()) {
                values.add(new Value(keyName(object, field), path, use(path)));
            }
            if (!group.behind().isEmpty()) {
                references.add(new ToOne(field.name(), path, target(name, path, group)));
            }
        }
        return new EntityShape(
                new FullQualifiedName(namespace, name),
                object,
                own,
                List.of(),
                values,
                references,
                List.of());
    }

    private EntityShape target(String owner, FieldPath path, PathGroup group) {
        var object = release.target(group.field());
        var name = owner + ResourceNames.capital(group.field().name());
        var made = record(name, object, path.steps(), group.behind(), false);
        if (!group.itself()) {
            return made;
        }
        var values = new ArrayList<>(List.of(new Value(EntityShape.KEY, path, use(path))));
        values.addAll(made.values());
        return new EntityShape(
                made.type(),
                object,
                false,
                List.of(EntityShape.KEY),
                values,
                made.references(),
                List.of());
    }

    private Items items(String owner, ObjectType object, Part part) {
        var name = owner + ResourceNames.singular(ResourceNames.capital(part.name()));
        var fields = new LinkedHashMap<String, FieldPath>();
        trees(Operation.READ, Operation.QUERY, Operation.UPDATE, Operation.CREATE)
                .flatMap(tree -> tree.part(part.name()).stream())
                .forEach(tree ->
                        tree.paths().forEach(path -> fields.putIfAbsent(path.written(), path)));
        var values =
                fields.values().stream()
                        .filter(FieldPath::isOwn)
                        .map(path ->
                                new Value(
                                        path.last().isReference()
                                                ? path.last().name() + "Key"
                                                : path.last().name(),
                                        path,
                                        itemUse(part, path)))
                        .toList();
        var target =
                new EntityShape(
                        new FullQualifiedName(namespace, name),
                        object,
                        false,
                        List.of(EntityShape.LINE),
                        values,
                        List.of(),
                        List.of());
        return new Items(
                part.name(),
                part,
                target,
                new Use(
                        offers(part, Operation.READ) || offers(part, Operation.QUERY),
                        offers(part, Operation.CREATE),
                        offers(part, Operation.UPDATE)));
    }

    private boolean offers(Part part, Operation operation) {
        return trees(operation).anyMatch(tree -> tree.part(part.name()).isPresent());
    }

    private Use itemUse(Part part, FieldPath path) {
        return new Use(
                itemHas(part, path, Operation.READ) || itemHas(part, path, Operation.QUERY),
                itemHas(part, path, Operation.CREATE),
                itemHas(part, path, Operation.UPDATE));
    }

    private boolean itemHas(Part part, FieldPath path, Operation operation) {
        return trees(operation)
                .flatMap(tree -> tree.part(part.name()).stream())
                .anyMatch(tree -> has(tree.paths(), path));
    }

    private Use use(FieldPath path) {
        return new Use(
                offers(path, Operation.READ) || offers(path, Operation.QUERY),
                offers(path, Operation.CREATE),
                offers(path, Operation.UPDATE));
    }

    private boolean offers(FieldPath path, Operation operation) {
        return trees(operation).anyMatch(tree -> has(tree.paths(), path));
    }

    private static boolean has(List<FieldPath> paths, FieldPath path) {
        return paths.stream().anyMatch(one -> one.written().equals(path.written()));
    }

    /** {@code vesselKey}, or {@code vessel_key} where a field is called so. */
    private static String keyName(ObjectType object, Field reference) {
        var name = reference.name() + "Key";
        return object.fields().find(name).isPresent() ? reference.name() + "_key" : name;
    }

    private static FieldPath longer(List<Field> before, Field field) {
        var steps = new ArrayList<>(before);
        steps.add(field);
        return new FieldPath(steps);
    }

    /** The namespace of a service: {@code BerthDesk.v1}. */
    static String namespace(String service, int version) {
        return ResourceNames.joined(service) + ".v" + version;
    }

    /** What an entity set is called: {@code workRequests} of {@code work-requests}. */
    static String setName(ResourceType resource) {
        return ResourceNames.small(ResourceNames.many(resource));
    }

    /** Resources by the names of their entity sets. */
    public static Map<String, ResourceType> sets(List<ResourceType> resources) {
        var sets = new LinkedHashMap<String, ResourceType>();
        resources.forEach(resource -> sets.put(setName(resource), resource));
        return sets;
    }
}
