package sandpiper.server.odata.metadata;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.apache.olingo.commons.api.edm.EdmPrimitiveTypeKind;
import org.apache.olingo.commons.api.edm.provider.CsdlAnnotation;
import org.apache.olingo.commons.api.edm.provider.CsdlEntityContainer;
import org.apache.olingo.commons.api.edm.provider.CsdlEntitySet;
import org.apache.olingo.commons.api.edm.provider.CsdlEntityType;
import org.apache.olingo.commons.api.edm.provider.CsdlNavigationProperty;
import org.apache.olingo.commons.api.edm.provider.CsdlProperty;
import org.apache.olingo.commons.api.edm.provider.CsdlPropertyRef;
import org.apache.olingo.commons.api.edm.provider.CsdlSchema;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.type.ChoiceType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.TextType;
import sandpiper.server.odata.metadata.EntityShape.Use;
import sandpiper.server.odata.metadata.EntityShape.Value;

/** Writes the metadata of a service: types, sets, actions, and what can be done with them. */
public final class SchemaWriter {
    private final Release release;
    private final String namespace;
    private final EdmTypes types;
    private final Map<String, CsdlEntityType> entities = new LinkedHashMap<>();
    private final OperationWriter operations;

    SchemaWriter(Release release, String namespace) {
        this.release = release;
        this.namespace = namespace;
        this.types = new EdmTypes(namespace);
        this.operations = new OperationWriter(namespace, types);
    }

    CsdlSchema write(
            Map<String, ResourceType> sets,
            Map<String, EntityShape> shapes,
            List<ObjectFunctionType> functions,
            String container) {
        var entitySets = new ArrayList<CsdlEntitySet>();
        sets.forEach((set, resource) -> {
            var shape = Objects.requireNonNull(shapes.get(set));
            entity(shape, true);
            entitySets.add(
                    new CsdlEntitySet()
                            .setName(set)
                            .setType(shape.type())
                            .setAnnotations(abilities(resource, shape)));
            resource.calls().forEach(call -> operations.bound(set, shape, call));
        });
        functions.forEach(operations::unbound);
        return new CsdlSchema()
                .setNamespace(namespace)
                .setEntityTypes(List.copyOf(entities.values()))
                .setComplexTypes(types.made())
                .setActions(operations.actions())
                .setFunctions(operations.functions())
                .setEntityContainer(
                        new CsdlEntityContainer()
                                .setName(container)
                                .setEntitySets(entitySets)
                                .setActionImports(operations.actionImports())
                                .setFunctionImports(operations.functionImports()));
    }

    private void entity(EntityShape shape, boolean own) {
        var properties = new ArrayList<CsdlProperty>();
        if (own) {
            properties.add(
                    computed(
                            EntityShape.ID,
                            EdmPrimitiveTypeKind.Guid,
                            "Stays the same whatever" + " becomes of the record."));
            properties.add(
                    computed(
                            EntityShape.VERSION,
                            EdmPrimitiveTypeKind.Int64,
                            "Counts the changes of the record, from 1."));
        }
        if (shape.key().equals(List.of(EntityShape.LINE))) {
            properties.add(
                    computed(
                            EntityShape.LINE,
                            EdmPrimitiveTypeKind.Int64,
                            "Tells line items of a record apart; send it to change one."));
        }
        shape.values().forEach(value -> properties.add(property(shape, value)));
        var navigations = new ArrayList<CsdlNavigationProperty>();
        for (var one : shape.references()) {
            entity(one.target(), false);
            navigations.add(
                    new CsdlNavigationProperty()
                            .setName(one.name())
                            .setType(one.target().type())
                            .setNullable(!one.path().last().required())
                            .setAnnotations(described(one.path().last())));
        }
        for (var one : shape.items()) {
            entity(one.target(), false);
            navigations.add(
                    new CsdlNavigationProperty()
                            .setName(one.name())
                            .setType(one.target().type())
                            .setCollection(true)
                            .setContainsTarget(true)
                            .setAnnotations(
                                    List.of(
                                            Annotations.description(
                                                    Objects.requireNonNullElse(
                                                            one.part().describe(),
                                                            one.part().label() + ".")))));
        }
        var type =
                new CsdlEntityType()
                        .setName(shape.type().getName())
                        .setProperties(properties)
                        .setNavigationProperties(navigations)
                        .setAnnotations(
                                List.of(
                                        Annotations.description(
                                                Objects.requireNonNullElse(
                                                        shape.object().describe(),
                                                        shape.object().label() + "."))));
        if (!shape.key().isEmpty()) {
            type.setKey(
                    shape.key().stream().map(name -> new CsdlPropertyRef().setName(name)).toList());
        }
        entities.put(shape.type().getName(), type);
    }

    private static CsdlProperty computed(String name, EdmPrimitiveTypeKind type, String describe) {
        return new CsdlProperty()
                .setName(name)
                .setType(type.getFullQualifiedName())
                .setNullable(false)
                .setAnnotations(List.of(Annotations.description(describe), Annotations.computed()));
    }

    private CsdlProperty property(EntityShape shape, Value value) {
        var field = value.path().last();
        var property = types.property(value.name(), field);
        // What a record must have may still be missing in one that is older than the rule.
        property.setNullable(!shape.key().contains(value.name()));
        var annotations = described(field);
        annotations.addAll(uses(value));
        if (field.type() instanceof ChoiceType choice) {
            annotations.add(Annotations.allowed(choice.choices().labels()));
        }
        return property.setAnnotations(annotations);
    }

    private List<CsdlAnnotation> described(Field field) {
        var annotations = new ArrayList<CsdlAnnotation>();
        var words = field.label();
        if (field.type() instanceof FieldType.Reference reference) {
            var target = release.target(reference).label();
            words =
                    words.equals(target)
                            ? "Key of %s".formatted(target)
                            : "%s, key of %s".formatted(words, target);
        }
        annotations.add(Annotations.description(words));
        var more = field.describe() == null && field.addedBy() == null ? "" : field.told();
        if (field.type() instanceof NumberType number) {
            more = "%s %s".formatted(more, number.unit()).strip();
        }
        if (!more.isEmpty()) {
            annotations.add(Annotations.longDescription(more));
        }
        return annotations;
    }

    private static List<CsdlAnnotation> uses(Value value) {
        Use use = value.use();
        var annotations = new ArrayList<CsdlAnnotation>();
        if (!use.creatable() && !use.updatable()) {
            annotations.add(Annotations.computed());
        } else if (!use.updatable()) {
            annotations.add(Annotations.immutable());
        }
        if (!use.shown()) {
            annotations.add(Annotations.writeOnly());
        }
        return annotations;
    }

    private static List<CsdlAnnotation> abilities(ResourceType resource, EntityShape shape) {
        var annotations = new ArrayList<CsdlAnnotation>();
        annotations.add(
                Annotations.description(
                        Objects.requireNonNullElse(
                                resource.describe(), resource.object().plural() + ".")));
        annotations.add(Annotations.optimisticConcurrency());
        annotations.add(
                Annotations.restriction(
                        "InsertRestrictions", "Insertable", resource.offers(Operation.CREATE)));
        annotations.add(
                Annotations.restriction(
                        "UpdateRestrictions", "Updatable", resource.offers(Operation.UPDATE)));
        annotations.add(
                Annotations.restriction(
                        "DeleteRestrictions", "Deletable", resource.offers(Operation.REMOVE)));
        annotations.add(
                Annotations.reading(
                        resource.offers(Operation.QUERY), resource.offers(Operation.READ)));
        if (resource.offers(Operation.QUERY)) {
            annotations.add(Annotations.groups());
        }
        boolean searched =
                resource.tree(Operation.QUERY)
                        .filter(tree ->
                                tree.paths().stream()
                                        .anyMatch(path ->
                                                path.last().type() instanceof TextType
                                                        && !path.last().onRead()))
                        .isPresent();
        annotations.add(Annotations.restriction("SearchRestrictions", "Searchable", searched));
        if (!shape.items().isEmpty()) {
            annotations.add(
                    Annotations.items(
                            shape.items().stream().map(EntityShape.Items::name).toList()));
        }
        annotations.add(
                Annotations.without(
                        "FilterRestrictions",
                        "Filterable",
                        "NonFilterableProperties",
                        resource.isFilterable(),
                        missing(shape, resource.filterable())));
        annotations.add(
                Annotations.without(
                        "SortRestrictions",
                        "Sortable",
                        "NonSortableProperties",
                        !resource.sortable().isEmpty(),
                        missing(shape, resource.sortable())));
        return annotations;
    }

    private static List<String> missing(EntityShape shape, List<FieldPath> allowed) {
        var missing = new ArrayList<>(List.of(EntityShape.ID, EntityShape.VERSION));
        shape.values().stream()
                .filter(value ->
                        allowed.stream()
                                .noneMatch(path -> path.written().equals(value.path().written())))
                .forEach(value -> missing.add(value.name()));
        return missing;
    }
}
