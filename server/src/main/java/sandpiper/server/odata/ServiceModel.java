package sandpiper.server.odata;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.apache.olingo.commons.api.edm.FullQualifiedName;
import org.apache.olingo.commons.api.edm.provider.CsdlAbstractEdmProvider;
import org.apache.olingo.commons.api.edm.provider.CsdlAction;
import org.apache.olingo.commons.api.edm.provider.CsdlComplexType;
import org.apache.olingo.commons.api.edm.provider.CsdlEntityContainer;
import org.apache.olingo.commons.api.edm.provider.CsdlEntityContainerInfo;
import org.apache.olingo.commons.api.edm.provider.CsdlEntitySet;
import org.apache.olingo.commons.api.edm.provider.CsdlEntityType;
import org.apache.olingo.commons.api.edm.provider.CsdlSchema;
import org.apache.olingo.commons.api.edm.provider.CsdlTerm;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ServiceType;

/**
 * A service as OData sees it: an entity set for each resource, an action for each call. It belongs
 * to one release.
 */
final class ServiceModel extends CsdlAbstractEdmProvider {
    private static final String CONTAINER = "Service";

    private final ServiceType service;
    private final Map<String, ResourceType> sets;
    private final Map<String, EntityShape> shapes = new LinkedHashMap<>();
    private final CsdlSchema schema;

    ServiceModel(Release release, ServiceType service) {
        this.service = service;
        this.sets = Shapes.sets(service.resources());
        var namespace = Shapes.namespace(service.name(), service.version());
        sets.forEach((set, resource) -> shapes.put(set, Shapes.of(release, namespace, resource)));
        this.schema = new SchemaWriter(release, namespace).write(sets, shapes, CONTAINER);
        if (service.describe() != null) {
            schema.getEntityContainer()
                    .setAnnotations(List.of(Annotations.description(service.describe())));
        }
    }

    ServiceType service() {
        return service;
    }

    /** The resource behind an entity set. */
    ResourceType resource(String set) {
        return Objects.requireNonNull(sets.get(set));
    }

    /** The entity type of a set. */
    EntityShape shape(String set) {
        return Objects.requireNonNull(shapes.get(set));
    }

    /** The name of a call in addresses ({@code check-in}) that an action stands for. */
    Optional<String> call(String set, String action) {
        return resource(set).transitions().stream()
                .filter(one -> one.name().equals(action))
                .map(one -> sandpiper.model.Names.address(one.name()))
                .findFirst();
    }

    /** The qualified name of an action, when there is one that is called so. */
    Optional<String> qualified(String action) {
        return schema.getActions().stream().anyMatch(one -> one.getName().equals(action))
                ? Optional.of(schema.getNamespace() + "." + action)
                : Optional.empty();
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
