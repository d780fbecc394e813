package sandpiper.server.odata.metadata;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import org.apache.olingo.commons.api.edm.FullQualifiedName;
import org.apache.olingo.commons.api.edm.provider.CsdlAbstractEdmProvider;
import org.apache.olingo.commons.api.edm.provider.CsdlAction;
import org.apache.olingo.commons.api.edm.provider.CsdlActionImport;
import org.apache.olingo.commons.api.edm.provider.CsdlComplexType;
import org.apache.olingo.commons.api.edm.provider.CsdlEntityContainer;
import org.apache.olingo.commons.api.edm.provider.CsdlEntityContainerInfo;
import org.apache.olingo.commons.api.edm.provider.CsdlEntitySet;
import org.apache.olingo.commons.api.edm.provider.CsdlEntityType;
import org.apache.olingo.commons.api.edm.provider.CsdlFunction;
import org.apache.olingo.commons.api.edm.provider.CsdlFunctionImport;
import org.apache.olingo.commons.api.edm.provider.CsdlSchema;
import org.apache.olingo.commons.api.edm.provider.CsdlTerm;
import org.apache.olingo.server.api.ServiceMetadata;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.CallType;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ServiceType;

/**
 * A service as OData sees it: an entity set for each resource, an action for each call. It belongs
 * to one release.
 */
public final class ServiceModel extends CsdlAbstractEdmProvider {
    private static final String CONTAINER = "Service";

    private final ServiceType service;
    private final Map<String, ResourceType> sets;
    private final Map<String, EntityShape> shapes = new LinkedHashMap<>();
    private final CsdlSchema schema;

    /** Made with the first request; what it finds out it keeps. */
    private volatile @Nullable ServiceMetadata metadata;

    public ServiceModel(Release release, ServiceType service) {
        this.service = service;
        this.sets = EntityShapes.sets(service.resources());
        var namespace = EntityShapes.namespace(service.name(), service.version());
        sets.forEach(
                (set, resource) -> shapes.put(set, EntityShapes.of(release, namespace, resource)));
        this.schema =
                new SchemaWriter(release, namespace)
                        .write(sets, shapes, service.functions(), CONTAINER);
        var annotations = new ArrayList<>(Annotations.ofService());
        if (service.describe() != null) {
            annotations.addFirst(Annotations.description(service.describe()));
        }
        schema.getEntityContainer().setAnnotations(annotations);
    }

    /** What the library knows of it, made once. */
    public ServiceMetadata metadata(Function<ServiceModel, ServiceMetadata> maker) {
        var there = metadata;
        if (there == null) {
            there = maker.apply(this);
            metadata = there;
        }
        return there;
    }

    public ServiceType service() {
        return service;
    }

    public boolean hasSet(String name) {
        return sets.containsKey(name);
    }

    /** The resource behind an entity set. */
    public ResourceType resource(String set) {
        return Objects.requireNonNull(sets.get(set));
    }

    /** The entity type of a set. */
    public EntityShape shape(String set) {
        return Objects.requireNonNull(shapes.get(set));
    }

    /** What an action or function on a record of a set stands for. */
    public Optional<CallType> call(String set, String name) {
        return resource(set).calls().stream().filter(one -> one.name().equals(name)).findFirst();
    }

    /** What an action or function on no record stands for. */
    Optional<ObjectFunctionType> function(String name) {
        return service.functions().stream().filter(one -> one.name().equals(name)).findFirst();
    }

    /** The qualified name of what is called on a record, when there is one that is called so. */
    public Optional<String> qualified(String name) {
        boolean isBound =
                schema.getActions().stream()
                                .anyMatch(one -> one.isBound() && one.getName().equals(name))
                        || schema.getFunctions().stream()
                                .anyMatch(one -> one.isBound() && one.getName().equals(name));
        return isBound ? Optional.of(schema.getNamespace() + "." + name) : Optional.empty();
    }

    /** What an action or function of a name gives back as the metadata have it. */
    public String returned(String name) {
        var type =
                schema.getActions().stream()
                        .filter(one -> one.getName().equals(name))
                        .map(CsdlAction::getReturnType)
                        .findFirst()
                        .or(() ->
                                schema.getFunctions().stream()
                                        .filter(one -> one.getName().equals(name))
                                        .map(CsdlFunction::getReturnType)
                                        .findFirst())
                        .orElseThrow();
        return type.isCollection() ? "Collection(" + type.getType() + ")" : type.getType();
    }

    @Override
    public @Nullable CsdlEntityType getEntityType(FullQualifiedName name) {
        return isHere(name) ? schema.getEntityType(name.getName()) : null;
    }

    @Override
    public @Nullable CsdlComplexType getComplexType(FullQualifiedName name) {
        return isHere(name) ? schema.getComplexType(name.getName()) : null;
    }

    @Override
    public @Nullable List<CsdlAction> getActions(FullQualifiedName name) {
        return isHere(name) ? new ArrayList<>(schema.getActions(name.getName())) : null;
    }

    @Override
    public @Nullable List<CsdlFunction> getFunctions(FullQualifiedName name) {
        return isHere(name) ? new ArrayList<>(schema.getFunctions(name.getName())) : null;
    }

    @Override
    public @Nullable CsdlActionImport getActionImport(FullQualifiedName container, String name) {
        return schema.getEntityContainer().getActionImport(name);
    }

    @Override
    public @Nullable CsdlFunctionImport getFunctionImport(
            FullQualifiedName container, String name) {
        return schema.getEntityContainer().getFunctionImport(name);
    }

    /** Terms of the vocabularies, which are only ever named. */
    @Override
    public CsdlTerm getTerm(FullQualifiedName name) {
        return new CsdlTerm().setName(name.getName()).setType("Edm.PrimitiveType");
    }

    private boolean isHere(FullQualifiedName name) {
        return name.getNamespace().equals(schema.getNamespace());
    }

    @Override
    public @Nullable CsdlEntitySet getEntitySet(FullQualifiedName container, String name) {
        return schema.getEntityContainer().getEntitySet(name);
    }

    @Override
    public @Nullable CsdlEntityContainerInfo getEntityContainerInfo(
            @Nullable FullQualifiedName name) {
        var container = new FullQualifiedName(schema.getNamespace(), CONTAINER);
        return name == null || name.equals(container)
                ? new CsdlEntityContainerInfo().setContainerName(container)
                : null;
    }

    @Override
    public List<CsdlSchema> getSchemas() {
        return List.of(schema);
    }

    @Override
    public CsdlEntityContainer getEntityContainer() {
        return schema.getEntityContainer();
    }
}
