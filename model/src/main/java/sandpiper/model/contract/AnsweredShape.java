package sandpiper.model.contract;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.FieldTree.PartTree;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;
import sandpiper.model.release.ValueType;

/**
 * Which values records and results of a service can have: by it a contract is told from the one
 * that somebody took before. Immutable.
 *
 * @param places {@code stays read vessel.name}, {@code stays read charges[] tariff}, {@code stays
 *     call quote total}, {@code functions quote total}; an operation alone says that it is offered
 */
public record AnsweredShape(Set<String> places) {
    public AnsweredShape {
        places = Set.copyOf(places);
    }

    /** As the service is defined. */
    public static AnsweredShape of(ServiceType service) {
        var places = new LinkedHashSet<String>();
        for (var resource : service.resources()) {
            resource.trees()
                    .forEach((operation, tree) -> {
                        var at = at(resource, operation);
                        places.add(at);
                        tree.paths().forEach(path -> places.add(at + " " + path.written()));
                        tree.parts()
                                .forEach(part -> {
                                    places.add(at(at, part));
                                    part.paths()
                                            .forEach(path ->
                                                    places.add(
                                                            at(at, part) + " " + path.written()));
                                });
                    });
            for (var call : resource.calls()) {
                result(places, atCall(resource.name(), call.name()), call.returns());
            }
        }
        for (var function : service.functions()) {
            result(places, atFunction(function.name()), function.definition().returns());
        }
        return new AnsweredShape(places);
    }

    private static String at(ResourceType resource, Operation operation) {
        return resource.name() + " " + operation.name().toLowerCase(Locale.ROOT);
    }

    private static String at(String operation, PartTree part) {
        return operation + " " + part.part().name() + "[]";
    }

    private static String atCall(String resource, String call) {
        return resource + " call " + call;
    }

    private static String atFunction(String function) {
        return ServiceType.FUNCTIONS + " " + function;
    }

    private static void result(Set<String> places, String at, @Nullable ValueType type) {
        places.add(at);
        if (type != null) {
            values(places, at + " ", type);
        }
    }

    private static void values(Set<String> places, String at, ValueType type) {
        switch (type) {
            case ValueType.Single _ -> {
                // one value, told by the place it has
            }
            case ValueType.Many(var item) -> values(places, at, item);
            case ValueType.Group group ->
                    group.entries()
                            .forEach(entry -> {
                                places.add(at + entry.name());
                                values(places, at + entry.name() + ".", entry.type());
                            });
        }
    }

    /** The resources with an operation, by name and in order. */
    public Set<String> resources() {
        var names = new TreeSet<String>();
        places.forEach(place -> names.add(place.substring(0, place.indexOf(' '))));
        names.remove(ServiceType.FUNCTIONS);
        return names;
    }

    /** What is here and not in another, in order. */
    public List<String> besides(AnsweredShape other) {
        return places.stream().filter(place -> !other.places.contains(place)).sorted().toList();
    }

    /**
     * What answers of one resource have here and not in another that offers them too, as callers
     * write it.
     */
    public List<String> besides(AnsweredShape other, String resource) {
        var names = new LinkedHashSet<String>();
        for (var place : besides(other)) {
            var words = place.split(" ", 3);
            boolean read = words[0].equals(resource) && words.length == 3;
            if (read
                    && (words[1].equals("read") || words[1].equals("query"))
                    && other.places.contains(words[0] + " " + words[1])) {
                names.add(words[2].replace("[] ", ".").replace("[]", ""));
            }
        }
        return List.copyOf(names);
    }

    /** The service with no more than this; operations that are not here stay as they are. */
    public ServiceType narrow(ServiceType service) {
        return new ServiceType(
                service.name(),
                service.version(),
                service.packageName(),
                service.label(),
                service.describe(),
                service.protocols(),
                service.resources().stream().map(this::narrow).toList(),
                service.functions(),
                service.events());
    }

    private ResourceType narrow(ResourceType resource) {
        var trees = new LinkedHashMap<Operation, FieldTree>();
        resource.trees()
                .forEach((operation, tree) -> {
                    var at = at(resource, operation);
                    trees.put(operation, places.contains(at) ? narrow(at, tree) : tree);
                });
        return new ResourceType(
                resource.name(),
                resource.object(),
                resource.describe(),
                trees,
                resource.filterable(),
                resource.filterableItems(),
                resource.sortable(),
                resource.calls(),
                resource.where(),
                resource.presets(),
                resource.versioned());
    }

    private FieldTree narrow(String at, FieldTree tree) {
        return new FieldTree(
                kept(at, tree.paths()),
                tree.parts().stream()
                        .filter(part -> places.contains(at(at, part)))
                        .map(part -> new PartTree(part.part(), kept(at(at, part), part.paths())))
                        .toList(),
                tree.annotated());
    }

    private List<FieldPath> kept(String at, List<FieldPath> paths) {
        return paths.stream().filter(path -> places.contains(at + " " + path.written())).toList();
    }

    /**
     * What a function gave back with no more than this.
     *
     * @param resource on whose record it was called, or {@code null}
     * @param value plain values: maps, lists and single ones
     */
    public @Nullable Object narrow(@Nullable String resource, String call, @Nullable Object value) {
        var at = resource == null ? atFunction(call) : atCall(resource, call);
        return places.contains(at) ? kept(at + " ", value) : value;
    }

    private @Nullable Object kept(String at, @Nullable Object value) {
        return switch (value) {
            case Map<?, ?> map when hasAnyOf(at, map.keySet()) -> {
                var kept = new LinkedHashMap<String, @Nullable Object>();
                map.forEach((name, one) -> {
                    if (places.contains(at + name)) {
                        kept.put(String.valueOf(name), kept(at + name + ".", one));
                    }
                });
                yield kept;
            }
            case List<?> list -> {
                var kept = new ArrayList<@Nullable Object>();
                list.forEach(one -> kept.add(kept(at, one)));
                yield kept;
            }
            case null, default -> value;
        };
    }

    /** A value that is written as a group without being one, such as money, is kept whole. */
    private boolean hasAnyOf(String at, Collection<?> names) {
        return names.stream().anyMatch(name -> places.contains(at + name));
    }
}
