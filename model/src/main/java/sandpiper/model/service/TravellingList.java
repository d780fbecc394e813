package sandpiper.model.service;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import sandpiper.model.definition.Travels;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.release.RouteType;
import sandpiper.model.source.Source;

/**
 * Adds what travels along routes to the field lists of the services they name.
 *
 * @param routes the names of routes that name the service
 */
record TravellingList(Set<String> routes) {
    static final TravellingList NONE = new TravellingList(Set.of());

    /** That of a service, which can leave all of it out. */
    static TravellingList of(Source source, String service, Release release) {
        boolean leftOut =
                Source.text(source.root(), "travelling")
                        .filter("false"::equalsIgnoreCase)
                        .isPresent();
        return leftOut
                ? NONE
                : new TravellingList(
                        release.routes().stream()
                                .filter(route -> route.services().contains(service))
                                .map(RouteType::name)
                                .collect(Collectors.toSet()));
    }

    /** A list with what travels besides; what only the service sets is not among what is taken. */
    FieldTree with(FieldTree tree, ObjectType object, String operation) {
        if (routes.isEmpty()) {
            return tree;
        }
        boolean taken = operation.equals("create") || operation.equals("update");
        var paths = new ArrayList<>(tree.paths());
        add(paths, object.fields(), taken);
        var parts =
                tree.parts().stream()
                        .map(part -> {
                            var ofPart = new ArrayList<>(part.paths());
                            add(ofPart, part.part().fields(), taken);
                            return new FieldTree.PartTree(part.part(), ofPart);
                        })
                        .toList();
        return new FieldTree(paths, parts);
    }

    private void add(List<FieldPath> paths, Fields fields, boolean taken) {
        for (var field : fields) {
            boolean isThere = paths.stream().anyMatch(path -> path.written().equals(field.name()));
            if (!isThere && isOn(field) && !(taken && field.readOnly())) {
                paths.add(FieldPath.of(field));
            }
        }
    }

    private boolean isOn(Field field) {
        var source = field.logic().source();
        return Stream.concat(
                        field.logic().travels().stream().map(Travels::route),
                        source == null ? Stream.empty() : Stream.of(source.route()))
                .anyMatch(routes::contains);
    }
}
