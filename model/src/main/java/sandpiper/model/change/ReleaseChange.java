package sandpiper.model.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import sandpiper.model.connection.ConnectionType;
import sandpiper.model.definition.DeliveredRole;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.RouteType;
import sandpiper.model.release.ServiceType;

/** All that differs between two releases. */
public record ReleaseChange(Release before, Release after, List<ObjectChange> objects) {
    public ReleaseChange {
        objects = List.copyOf(objects);
    }

    /** Compares two releases. */
    public static ReleaseChange between(Release before, Release after) {
        return between(before, after, new WrittenNames(before, after));
    }

    /**
     * What it is to go back to an earlier release: what was renamed since gets its name back.
     *
     * @param way from the earlier release to the one that is live, both included
     */
    public static ReleaseChange back(List<Release> way) {
        return between(way.getLast(), way.getFirst(), new NamesTakenBack(way));
    }

    private static ReleaseChange between(Release before, Release after, FormerNames names) {
        var changes = new ArrayList<ObjectChange>();
        var matched = new HashSet<String>();
        for (var object : after.objects()) {
            var name = names.of(object);
            if (name != null) {
                matched.add(name);
            }
            changes.add(
                    ObjectChange.between(name == null ? null : before.object(name), object, names));
        }
        before.objects().stream()
                .filter(object -> !matched.contains(object.name()))
                .forEach(object -> changes.add(ObjectChange.removed(object)));
        return new ReleaseChange(before, after, changes);
    }

    /**
     * Whether formulas that read as before may come to something else: the days, languages or
     * rounding of a package are others, or a stored field became one of another kind.
     */
    public boolean changesAllFormulas() {
        boolean packages =
                after.packages().stream()
                        .anyMatch(now ->
                                before.packages().stream()
                                        .filter(then -> then.name().equals(now.name()))
                                        .anyMatch(then -> !then.worksOutAs(now)));
        return packages
                || objects.stream()
                        .flatMap(object -> object.fields().stream())
                        .anyMatch(FieldChange::changesKind);
    }

    /** What a person is told, one sentence for each difference, in the order of the model. */
    public List<String> sentences() {
        var sentences = new ArrayList<String>();
        objects.forEach(object -> sentences.addAll(object.sentences()));
        if (!before.labels().equals(after.labels())) {
            sentences.add("Labels in further languages change.");
        }
        services(sentences);
        packages(sentences);
        events(sentences);
        routes(sentences);
        connections(sentences);
        roles(sentences);
        views(sentences);
        SeedChange.of(before, after).stream().map(SeedChange::sentence).forEach(sentences::add);
        return sentences;
    }

    private void routes(List<String> sentences) {
        named(
                before.routes(),
                after.routes(),
                RouteType::name,
                route -> "Route %s is added.".formatted(route.name()),
                route -> "Route %s is removed.".formatted(route.name()),
                sentences);
    }

    private void connections(List<String> sentences) {
        named(
                ConnectionType.of(before),
                ConnectionType.of(after),
                ConnectionType::name,
                one ->
                        "Connection %s is added; the instance gives its address under %s."
                                .formatted(one.name(), one.setting()),
                one -> "Connection %s is removed.".formatted(one.name()),
                sentences);
    }

    /** What comes and what goes, by their names. */
    private static <T> void named(
            List<T> before,
            List<T> after,
            Function<T, String> name,
            Function<T, String> added,
            Function<T, String> removed,
            List<String> sentences) {
        var then = before.stream().map(name).toList();
        var now = after.stream().map(name).toList();
        after.stream()
                .filter(one -> !then.contains(name.apply(one)))
                .map(added)
                .forEach(sentences::add);
        before.stream()
                .filter(one -> !now.contains(name.apply(one)))
                .map(removed)
                .forEach(sentences::add);
    }

    private void services(List<String> sentences) {
        for (var service : after.services()) {
            var former = before.service(service.name(), service.version());
            if (former.isEmpty()) {
                sentences.add("Service %s is published.".formatted(service.titled()));
            } else {
                serviceSentences(former.get(), service, sentences);
            }
        }
        before.services().stream()
                .filter(service -> after.service(service.name(), service.version()).isEmpty())
                .forEach(service ->
                        sentences.add("Service %s is withdrawn.".formatted(service.titled())));
    }

    private static void serviceSentences(
            ServiceType before, ServiceType after, List<String> sentences) {
        for (var resource : after.resources()) {
            var former = before.resource(resource.name());
            if (former.isEmpty()) {
                sentences.add(
                        "Service %s: resource %s is added."
                                .formatted(after.titled(), resource.name()));
            } else if (!outline(former.get()).equals(outline(resource))) {
                sentences.add(
                        "Service %s: resource %s shows, takes or does something else."
                                .formatted(after.titled(), resource.name()));
            }
        }
        if (!functions(before).equals(functions(after))) {
            sentences.add("Service %s: its functions change.".formatted(after.titled()));
        }
        if (!events(before).equals(events(after))) {
            sentences.add("Service %s: its events change.".formatted(after.titled()));
        }
        before.resources().stream()
                .filter(resource -> after.resource(resource.name()).isEmpty())
                .forEach(resource ->
                        sentences.add(
                                "Service %s: resource %s is withdrawn."
                                        .formatted(after.titled(), resource.name())));
    }

    private static List<String> functions(ServiceType service) {
        return service.functions().stream().map(CallOutline::of).toList();
    }

    private static List<String> events(ServiceType service) {
        return service.events().stream().map(CallOutline::of).toList();
    }

    /** What callers see of a resource, as text to compare. */
    private static String outline(ResourceType resource) {
        var text = new StringBuilder();
        for (var operation : ResourceType.Operation.values()) {
            resource.tree(operation)
                    .ifPresent(tree -> {
                        text.append(operation);
                        tree.paths().forEach(path -> text.append(' ').append(path.written()));
                        tree.parts()
                                .forEach(part ->
                                        part.paths()
                                                .forEach(path ->
                                                        text.append(' ')
                                                                .append(part.part().name())
                                                                .append('.')
                                                                .append(path.written())));
                    });
        }
        resource.filterNames().forEach(path -> text.append(" filter ").append(path));
        resource.sortable().forEach(path -> text.append(" sort ").append(path.written()));
        resource.calls().forEach(call -> text.append(" call ").append(call));
        return text.toString();
    }

    private void events(List<String> sentences) {
        for (var event : after.namedEvents()) {
            var former = before.event(event.name());
            if (former.isEmpty()) {
                sentences.add("Event %s is added.".formatted(event.name()));
            } else if (!former.get().equals(event)) {
                sentences.add("Event %s changes.".formatted(event.name()));
            }
        }
        before.namedEvents().stream()
                .filter(event -> after.event(event.name()).isEmpty())
                .forEach(event -> sentences.add("Event %s is removed.".formatted(event.name())));
    }

    /** What an object was before; nothing when it is new. */
    public Optional<ObjectType> formerly(ObjectType now) {
        return objects.stream()
                .filter(one -> {
                    var after = one.after();
                    return after != null && after.name().equals(now.name());
                })
                .map(ObjectChange::before)
                .filter(Objects::nonNull)
                .findFirst();
    }

    private void roles(List<String> sentences) {
        var former = new HashMap<String, DeliveredRole>();
        before.brought().roles().forEach(role -> former.put(role.name(), role));
        for (var role : after.brought().roles()) {
            var known = former.remove(role.name());
            if (known == null) {
                sentences.add("Role %s is added.".formatted(role.name()));
            } else if (!known.equals(role)) {
                sentences.add("Role %s changes.".formatted(role.name()));
            }
        }
        former.keySet().stream()
                .sorted()
                .forEach(name -> sentences.add("Role %s is removed.".formatted(name)));
    }

    private void views(List<String> sentences) {
        var former = new ArrayList<>(before.brought().views());
        for (var view : after.brought().views()) {
            boolean known =
                    former.removeIf(one ->
                            one.object().equals(view.object()) && one.name().equals(view.name()));
            if (!known) {
                sentences.add("View \"%s\" of %s is added.".formatted(view.name(), view.object()));
            } else if (!before.brought().views().contains(view)) {
                sentences.add("View \"%s\" of %s changes.".formatted(view.name(), view.object()));
            }
        }
        former.forEach(view ->
                sentences.add(
                        "View \"%s\" of %s is removed.".formatted(view.name(), view.object())));
    }

    private void packages(List<String> sentences) {
        for (var definition : after.packages()) {
            var former =
                    before.packages().stream()
                            .filter(other -> other.name().equals(definition.name()))
                            .findFirst();
            if (former.isEmpty()) {
                sentences.add(
                        "Package %s %s is added."
                                .formatted(definition.name(), definition.version()));
            } else if (!former.get().version().equals(definition.version())) {
                sentences.add(
                        "Package %s goes from %s to %s."
                                .formatted(
                                        definition.name(),
                                        former.get().version(),
                                        definition.version()));
            }
        }
    }
}
