package sandpiper.server.odata;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.odata.metadata.ServiceModel;

/** What can be done at an address, as {@code Allow} says it. */
final class EntityMethods {
    private EntityMethods() {}

    /** Of an entity set or one of its entities; nothing for what is none of them. */
    static Optional<String> at(ServiceModel model, String path) {
        var address = path.startsWith("/") ? path.substring(1) : path;
        int bracket = address.indexOf('(');
        var set = bracket < 0 ? address : address.substring(0, bracket);
        boolean whole = bracket < 0;
        boolean one = !whole && address.endsWith(")") && address.indexOf("/", bracket) < 0;
        if (!model.hasSet(set) || !(whole || one)) {
            return Optional.empty();
        }
        var resource = model.resource(set);
        return Optional.of(String.join(", ", whole ? ofSet(resource) : ofEntity(resource)));
    }

    private static List<String> ofSet(ResourceType resource) {
        var methods = new ArrayList<String>();
        if (resource.offers(Operation.QUERY)) {
            methods.add("GET");
        }
        if (resource.offers(Operation.CREATE)) {
            methods.add("POST");
        }
        return methods;
    }

    private static List<String> ofEntity(ResourceType resource) {
        var methods = new ArrayList<String>();
        if (resource.offers(Operation.READ)) {
            methods.add("GET");
        }
        if (resource.offers(Operation.UPDATE)) {
            methods.addAll(List.of("PATCH", "PUT"));
        }
        if (resource.offers(Operation.REMOVE)) {
            methods.add("DELETE");
        }
        return methods;
    }
}
