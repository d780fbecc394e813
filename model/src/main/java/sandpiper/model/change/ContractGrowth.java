package sandpiper.model.change;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;

/**
 * What a contract gets that it had not. Over REST and OData clients pass it over; over SOAP many
 * generated clients refuse an answer with an element that they do not know.
 */
final class ContractGrowth {
    private ContractGrowth() {}

    /** What clients over SOAP may stumble over in a resource, as a sentence. */
    static Optional<String> overSoap(ServiceType service, ResourceType before, ResourceType after) {
        if (!service.protocols().contains("soap")) {
            return Optional.empty();
        }
        var added = new LinkedHashSet<>(answered(after));
        added.removeAll(answered(before));
        return added.isEmpty()
                ? Optional.empty()
                : Optional.of(
                        "Service %s: over SOAP, answers of %s get %s; clients that were generated before may refuse them and should be made anew."
                                .formatted(
                                        service.titled(), after.name(), String.join(", ", added)));
    }

    private static Set<String> answered(ResourceType resource) {
        var names = new LinkedHashSet<String>();
        for (var operation : List.of(Operation.READ, Operation.QUERY)) {
            var tree = resource.tree(operation).orElse(FieldTree.EMPTY);
            tree.paths().forEach(path -> names.add(path.written()));
            tree.parts()
                    .forEach(part ->
                            part.paths()
                                    .forEach(path ->
                                            names.add(part.part().name() + "." + path.written())));
        }
        return names;
    }
}
