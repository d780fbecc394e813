package sandpiper.model.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import sandpiper.model.Names;
import sandpiper.model.release.CallType;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;

/**
 * Compares the published services of two releases from the side of those who call them. What is
 * added breaks nobody; what is taken away, renamed, narrowed or newly asked for does.
 */
public final class ContractBreaks {
    private final List<ContractBreak> breaks = new ArrayList<>();
    private final ServiceType service;

    private ContractBreaks(ServiceType service) {
        this.service = service;
    }

    /** Everything that breaks; a new version of a service breaks nothing. */
    public static List<ContractBreak> between(Release before, Release after) {
        var all = new ArrayList<ContractBreak>();
        for (var service : before.services()) {
            var finder = new ContractBreaks(service);
            after.service(service.name(), service.version())
                    .ifPresentOrElse(
                            finder::compare, () -> finder.add("", "", "the service is gone"));
            all.addAll(finder.breaks);
        }
        return all;
    }

    private void add(String resource, String operation, String message) {
        breaks.add(
                new ContractBreak(service.name(), service.version(), resource, operation, message));
    }

    private void compare(ServiceType after) {
        service.protocols().stream()
                .filter(protocol -> !after.protocols().contains(protocol))
                .forEach(protocol ->
                        add("", "", "no longer speaks " + protocol.toUpperCase(Locale.ROOT)));
        functions(after);
        events(after);
        for (var resource : service.resources()) {
            after.resource(resource.name())
                    .ifPresentOrElse(
                            now -> compare(resource, now),
                            () -> add(resource.name(), "", "the resource is gone"));
        }
    }

    private void called(String resource, CallType before, CallType after) {
        ValueBreaks.asked(before.parameters(), after.parameters())
                .forEach(message -> add(resource, before.name(), message));
        ValueBreaks.returned(before.returns(), after.returns())
                .forEach(message -> add(resource, before.name(), message));
    }

    private void functions(ServiceType after) {
        for (var function : service.functions()) {
            var now = after.function(Names.address(function.name()));
            if (now.isEmpty()) {
                add(ServiceType.FUNCTIONS, function.name(), "is no longer offered");
                continue;
            }
            called(
                    ServiceType.FUNCTIONS,
                    new CallType.OfFunction(function.definition()),
                    new CallType.OfFunction(now.get().definition()));
        }
    }

    private void events(ServiceType after) {
        for (var event : service.events()) {
            after.events().stream()
                    .filter(now -> now.name().equals(event.name()))
                    .findFirst()
                    .ifPresentOrElse(
                            now ->
                                    ValueBreaks.returned(event.fields(), now.fields())
                                            .forEach(message ->
                                                    add(ServiceType.EVENTS, event.name(), message)),
                            () -> add(ServiceType.EVENTS, event.name(), "is no longer published"));
        }
    }

    private void compare(ResourceType before, ResourceType after) {
        var name = before.name();
        if (!before.object().key().equals(after.object().key())) {
            add(
                    name,
                    "",
                    "records are addressed by %s instead of %s".formatted(key(after), key(before)));
        }
        var where = after.where() == null ? null : after.where().text();
        if (where != null && (before.where() == null || !before.where().text().equals(where))) {
            add(name, "", "shows only records for which " + where);
        }
        if (after.versioned() && !before.versioned()) {
            add(name, "", "needs the version of the record with each change from now on");
        }
        for (var operation : Operation.values()) {
            var word = operation.name().toLowerCase(Locale.ROOT);
            var was = before.tree(operation);
            var is = after.tree(operation);
            if (was.isPresent() && is.isEmpty()) {
                add(name, word, "is no longer offered");
            } else if (was.isPresent() && is.isPresent()) {
                switch (operation) {
                    case READ, QUERY -> answers(name, word, was.get(), is.get());
                    case CREATE -> inputs(name, word, was.get(), is.get(), true);
                    case UPDATE -> inputs(name, word, was.get(), is.get(), false);
                    case REMOVE -> {
                        // takes and gives nothing
                    }
                }
            }
        }
        for (var call : before.calls()) {
            after.calls().stream()
                    .filter(now -> now.name().equals(call.name()))
                    .findFirst()
                    .ifPresentOrElse(
                            now -> called(name, call, now),
                            () -> add(name, call.name(), "is no longer offered"));
        }
        before.filterNames().stream()
                .filter(path -> !after.filterNames().contains(path))
                .forEach(path -> add(name, "query", "can no longer be filtered by " + path));
        missing(before.sortable(), after.sortable())
                .forEach(path -> add(name, "query", "can no longer be sorted by " + path));
    }

    private static String key(ResourceType resource) {
        var key = resource.object().key();
        return key.isEmpty() ? "id" : String.join(", ", key);
    }

    private static List<String> missing(List<FieldPath> before, List<FieldPath> after) {
        var there = after.stream().map(FieldPath::written).toList();
        return before.stream().map(FieldPath::written).filter(one -> !there.contains(one)).toList();
    }

    /** Compares fields at one depth; {@code prefix} is what stands before their names. */
    @FunctionalInterface
    private interface Comparison {
        void compare(String prefix, List<FieldPath> was, List<FieldPath> is);
    }

    private void answers(String resource, String operation, FieldTree was, FieldTree is) {
        trees(
                resource,
                operation,
                was,
                is,
                "no longer shows ",
                (prefix, then, now) -> answered(resource, operation, prefix, then, now));
    }

    /** Compares the record's own fields, and those of each of its parts. */
    private void trees(
            String resource,
            String operation,
            FieldTree was,
            FieldTree is,
            String gone,
            Comparison comparison) {
        comparison.compare("", was.paths(), is.paths());
        for (var part : was.parts()) {
            var name = part.part().name();
            is.part(name)
                    .ifPresentOrElse(
                            now -> comparison.compare(name + ".", part.paths(), now.paths()),
                            () -> add(resource, operation, gone + name));
        }
    }

    private void answered(
            String resource,
            String operation,
            String prefix,
            List<FieldPath> was,
            List<FieldPath> is) {
        var now = byName(is);
        for (var path : was) {
            var there = now.get(path.written());
            var name = prefix + path.written();
            if (there == null) {
                add(resource, operation, "no longer shows " + name + renamed(path.last(), is));
                continue;
            }
            var other = TypeBreaks.otherForm(path.last().type(), there.last().type());
            if (other != null) {
                add(resource, operation, "%s %s".formatted(name, other));
            } else if (path.last().isReference() && nested(was, path) != nested(is, path)) {
                add(
                        resource,
                        operation,
                        nested(is, path)
                                ? name + " becomes an object, because fields behind it are shown"
                                : name + " is a key only, because no field behind it is shown");
            }
        }
    }

    private static boolean nested(List<FieldPath> paths, FieldPath reference) {
        var before = reference.written() + ".";
        return paths.stream().anyMatch(path -> path.written().startsWith(before));
    }

    private static Map<String, FieldPath> byName(List<FieldPath> paths) {
        var named = new HashMap<String, FieldPath>();
        paths.forEach(path -> named.put(path.written(), path));
        return named;
    }

    private static String renamed(Field field, List<FieldPath> now) {
        return now.stream()
                .map(FieldPath::last)
                .filter(one -> field.name().equals(one.was()))
                .findFirst()
                .map(one -> ", which is called %s now".formatted(one.name()))
                .orElse("");
    }

    private void inputs(
            String resource, String operation, FieldTree was, FieldTree is, boolean whole) {
        trees(
                resource,
                operation,
                was,
                is,
                "no longer takes ",
                (prefix, then, now) -> taken(resource, operation, prefix, then, now));
        if (whole) {
            asked(resource, operation, was, is);
        }
        for (var part : is.parts()) {
            var earlier = was.part(part.part().name());
            part.paths().stream()
                    .map(FieldPath::last)
                    .filter(field -> isNeeded(field))
                    .filter(field ->
                            earlier.isPresent()
                                    && earlier.get().paths().stream()
                                            .map(FieldPath::last)
                                            .noneMatch(one ->
                                                    one.name().equals(field.name())
                                                            && isNeeded(one)))
                    .forEach(field ->
                            add(
                                    resource,
                                    operation,
                                    "needs %s.%s from now on"
                                            .formatted(part.part().name(), field.name())));
        }
    }

    private static boolean isNeeded(Field field) {
        return field.required() && field.defaultValue() == null && !field.isDerived();
    }

    /** What a new record must have that it need not have had, or could not. */
    private void asked(String resource, String operation, FieldTree was, FieldTree is) {
        var earlier = byName(was.paths());
        for (var path : is.paths()) {
            var then = earlier.get(path.written());
            if (isNeeded(path.last()) && (then == null || !isNeeded(then.last()))) {
                add(resource, operation, "needs %s from now on".formatted(path.written()));
            }
        }
    }

    private void taken(
            String resource,
            String operation,
            String prefix,
            List<FieldPath> was,
            List<FieldPath> is) {
        var now = byName(is);
        for (var path : was) {
            var there = now.get(path.written());
            var name = prefix + path.written();
            if (there == null) {
                add(resource, operation, "no longer takes " + name + renamed(path.last(), is));
                continue;
            }
            var other = TypeBreaks.otherForm(path.last().type(), there.last().type());
            var narrower =
                    other == null
                            ? TypeBreaks.narrower(path.last().type(), there.last().type())
                            : other;
            if (narrower != null) {
                add(resource, operation, "%s %s".formatted(name, narrower));
            }
        }
    }
}
