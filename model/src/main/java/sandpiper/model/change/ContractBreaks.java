package sandpiper.model.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;
import sandpiper.model.type.ChoiceType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.TextType;

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
        for (var resource : service.resources()) {
            after.resource(resource.name())
                    .ifPresentOrElse(
                            now -> compare(resource, now),
                            () -> add(resource.name(), "", "the resource is gone"));
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
        before.transitions().stream()
                .filter(one ->
                        after.transitions().stream()
                                .noneMatch(now -> now.name().equals(one.name())))
                .forEach(one -> add(name, one.name(), "is no longer offered"));
        missing(before.filterable(), after.filterable())
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
            var other = otherType(path.last().type(), there.last().type());
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
        return field.required() && field.standard() == null && !field.isDerived();
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
            var other = otherType(path.last().type(), there.last().type());
            var narrower =
                    other == null ? narrower(path.last().type(), there.last().type()) : other;
            if (narrower != null) {
                add(resource, operation, "%s %s".formatted(name, narrower));
            }
        }
    }

    /** How a value has another form, or {@code null} when it has not. */
    private static @Nullable String otherType(FieldType was, FieldType is) {
        if (was instanceof FieldType.Reference before && is instanceof FieldType.Reference now) {
            return before.to().equals(now.to())
                    ? null
                    : "refers to %s instead of %s".formatted(now.to(), before.to());
        }
        boolean localised =
                was instanceof TextType before
                        && is instanceof TextType now
                        && before.isLocalised() != now.isLocalised();
        boolean sameText = isText(was) && isText(is) && !localised;
        return (was.keyword() == is.keyword() || sameText) && !localised
                ? null
                : "is %s instead of %s".formatted(word(is), word(was));
    }

    private static boolean isText(FieldType type) {
        return type instanceof TextType || type instanceof ChoiceType;
    }

    private static String word(FieldType type) {
        return (type instanceof TextType text && text.isLocalised() ? "localised " : "")
                + type.keyword().word();
    }

    /** How fewer values are taken than before, or {@code null} when as many are. */
    private static @Nullable String narrower(FieldType was, FieldType is) {
        if (is instanceof ChoiceType now) {
            var codes = now.choices().labels().keySet();
            if (!(was instanceof ChoiceType before)) {
                return "takes only %s".formatted(String.join(", ", codes));
            }
            var gone =
                    before.choices().labels().keySet().stream()
                            .filter(code -> !codes.contains(code))
                            .toList();
            return gone.isEmpty() ? null : "no longer takes " + String.join(", ", gone);
        }
        if (was instanceof TextType before && is instanceof TextType now) {
            if (now.length() < before.length()) {
                return "takes %,d characters instead of %,d"
                        .formatted(now.length(), before.length());
            }
            boolean sameForm =
                    before.keyword() == now.keyword()
                            && Objects.equals(pattern(before), pattern(now));
            boolean anyForm = now.pattern() == null && now.keyword().word().equals("text");
            return sameForm || anyForm ? null : "takes another form of text";
        }
        if (was instanceof NumberType before
                && is instanceof NumberType now
                && now.scale() < before.scale()) {
            return "takes %d decimal places instead of %d".formatted(now.scale(), before.scale());
        }
        return null;
    }

    private static @Nullable String pattern(TextType type) {
        return type.pattern() == null ? null : type.pattern().pattern();
    }
}
