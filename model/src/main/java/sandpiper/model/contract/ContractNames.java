package sandpiper.model.contract;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;

/**
 * Finds names of a service that would mean two things in one of its contracts, which no client
 * could be made for.
 */
public final class ContractNames {
    /** Schemas that every contract over REST has. */
    private static final Set<String> OF_REST = Set.of("Problem", "BatchResult", "Event");

    /** Types that every contract over SOAP has. */
    private static final Set<String> OF_SOAP = Set.of("ServiceFault");

    /** What stands beside the records of a page over SOAP. */
    private static final Set<String> OF_A_PAGE = Set.of("next", "count");

    private final ServiceType service;
    private final List<Collision> found = new ArrayList<>();

    private ContractNames(ServiceType service) {
        this.service = service;
    }

    /**
     * A name that means two things.
     *
     * @param place keys of the service's file that lead to one of them
     * @param said a sentence with both and what to do
     */
    public record Collision(List<String> place, String said) {
        public Collision {
            place = List.copyOf(place);
        }
    }

    /** All there are, in the order of the service's resources. */
    public static List<Collision> of(ServiceType service) {
        var names = new ContractNames(service);
        names.operations();
        if (service.protocols().contains("rest")) {
            names.types(OF_REST, ContractNames::schemas);
        }
        if (service.protocols().contains("odata")) {
            names.types(Set.of(), ContractNames::nested);
        }
        if (service.protocols().contains("soap")) {
            names.types(OF_SOAP, ContractNames::soapTypes);
            service.resources().forEach(names::criteria);
            service.resources().forEach(names::page);
        }
        return names.found;
    }

    /** The names of what is done are one set: each has an element, or an operation's id. */
    private void operations() {
        var taken = new HashMap<String, String>();
        for (var resource : service.resources()) {
            var place = List.of("resources", resource.name());
            for (var verb : verbs(resource).entrySet()) {
                take(taken, verb.getKey(), verb.getValue(), place);
            }
        }
        for (var resource : service.resources()) {
            for (var call : resource.calls()) {
                take(
                        taken,
                        ResourceNames.joined(call.name()) + ResourceNames.one(resource),
                        "the call %s of %s".formatted(call.name(), resource.name()),
                        List.of("resources", resource.name(), "calls"));
            }
        }
        for (var function : service.functions()) {
            take(
                    taken,
                    ResourceNames.joined(function.name()),
                    "the function %s".formatted(function.name()),
                    List.of("functions"));
        }
    }

    /** What is done with a resource, by the names it has over REST and SOAP. */
    private static Map<String, String> verbs(ResourceType resource) {
        var one = ResourceNames.one(resource);
        var many = ResourceNames.many(resource);
        var names = new LinkedHashMap<String, String>();
        boolean creates = resource.offers(Operation.CREATE);
        boolean updates = resource.offers(Operation.UPDATE);
        name(names, creates, "Create" + one, "creating", resource);
        name(names, resource.offers(Operation.READ), "Get" + one, "reading", resource);
        name(names, resource.offers(Operation.READ), "Read" + one, "reading", resource);
        name(names, updates, "Update" + one, "changing", resource);
        name(names, creates && updates, "Save" + one, "saving", resource);
        name(names, resource.offers(Operation.QUERY), "Find" + many, "finding", resource);
        name(names, resource.offers(Operation.QUERY), "Query" + many, "finding", resource);
        name(names, resource.offers(Operation.REMOVE), "Remove" + one, "removing", resource);
        name(names, creates || updates, "Batch" + many, "changing many", resource);
        return names;
    }

    private static void name(
            Map<String, String> names,
            boolean isOffered,
            String name,
            String doing,
            ResourceType resource) {
        if (isOffered) {
            names.put(name, "%s of %s".formatted(doing, resource.name()));
        }
    }

    private void take(Map<String, String> taken, String name, String what, List<String> place) {
        var other = taken.putIfAbsent(name, what);
        if (other != null) {
            found.add(
                    new Collision(
                            place,
                            "In contracts, %s and %s would both be called %s; rename one of them."
                                    .formatted(other, what, name)));
        }
    }

    /** The types of a contract are one set: of records, and of what is made for them. */
    private void types(Set<String> fixed, Function<ResourceType, Map<String, String>> others) {
        var taken = new HashMap<String, String>();
        fixed.forEach(name -> taken.put(name, "what every contract has"));
        for (var resource : service.resources()) {
            take(
                    taken,
                    ResourceNames.one(resource),
                    "records of %s".formatted(resource.name()),
                    List.of("resources", resource.name()));
        }
        for (var resource : service.resources()) {
            others.apply(resource)
                    .forEach((name, what) ->
                            take(
                                    taken,
                                    name,
                                    "%s of %s".formatted(what, resource.name()),
                                    List.of("resources", resource.name())));
        }
    }

    private static Map<String, String> schemas(ResourceType resource) {
        return suffixed(resource, "Item", "Page", "Create", "Update", "Save", "Batch", "BatchItem");
    }

    private static Map<String, String> soapTypes(ResourceType resource) {
        var types = suffixed(resource, "Criteria", "Page", "Sort", "Result");
        nested(resource).forEach(types::putIfAbsent);
        return types;
    }

    private static Map<String, String> suffixed(ResourceType resource, String... suffixes) {
        var types = new LinkedHashMap<String, String>();
        for (var suffix : suffixes) {
            types.put(
                    ResourceNames.one(resource) + suffix,
                    "the %s".formatted(suffix.toLowerCase(Locale.ROOT)));
        }
        return types;
    }

    /** Types of what is shown of records that are referred to, and of line items. */
    private static Map<String, String> nested(ResourceType resource) {
        var types = new LinkedHashMap<String, String>();
        var one = ResourceNames.one(resource);
        for (var operation : List.of(Operation.READ, Operation.QUERY)) {
            var tree = resource.tree(operation).orElse(FieldTree.EMPTY);
            for (var path : tree.paths()) {
                var name = new StringBuilder(one);
                for (var step : path.steps().subList(0, path.steps().size() - 1)) {
                    name.append(ResourceNames.capital(step.name()));
                    types.put(name.toString(), "what %s leads to".formatted(step.name()));
                }
            }
            tree.parts()
                    .forEach(part ->
                            types.put(
                                    one
                                            + ResourceNames.singular(
                                                    ResourceNames.capital(part.part().name())),
                                    "the line items %s".formatted(part.part().name())));
        }
        return types;
    }

    /** Criteria are elements with the steps of their path in one word. */
    private void criteria(ResourceType resource) {
        var taken = new HashMap<String, FieldPath>();
        for (var path : resource.filterable()) {
            var name = element(path);
            var other = taken.putIfAbsent(name, path);
            if (other != null) {
                found.add(
                        new Collision(
                                List.of("resources", resource.name(), "filter"),
                                "Over SOAP, the criteria %s and %s would both be called %s; leave one out, or rename the field."
                                        .formatted(other.written(), path.written(), name)));
            }
        }
    }

    /** The name of a path in one word: {@code shelfName} for {@code shelf.name}. */
    public static String element(FieldPath path) {
        return ResourceNames.small(
                path.steps().stream()
                        .map(step -> ResourceNames.capital(step.name()))
                        .collect(Collectors.joining()));
    }

    private void page(ResourceType resource) {
        var record = ResourceNames.small(ResourceNames.one(resource));
        if (resource.offers(Operation.QUERY) && OF_A_PAGE.contains(record)) {
            found.add(
                    new Collision(
                            List.of("resources", resource.name()),
                            "Over SOAP, a page of %s would have its records as %s, which has a meaning there already; rename the resource."
                                    .formatted(resource.name(), record)));
        }
    }
}
