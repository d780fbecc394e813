package sandpiper.model.check;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.connection.ConnectionType;
import sandpiper.model.connection.LookupType;
import sandpiper.model.definition.PackageSight;
import sandpiper.model.definition.PackageType;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.source.Source;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.OutsideChoiceType;

/**
 * Checks that references point to objects that exist and may be used, and that inverses have names
 * of their own.
 */
final class ReferenceChecker {
    private final Map<String, PackageType> packages;
    private final Map<String, ObjectType> objects;
    private final Map<String, Source> sources;
    private final Map<String, List<Source>> extensions;
    private final Map<String, ConnectionType> connections;
    private final Map<String, Set<String>> inverses = new HashMap<>();

    ReferenceChecker(
            Map<String, PackageType> packages,
            Map<String, ObjectType> objects,
            Map<String, Source> sources,
            Map<String, List<Source>> extensions,
            Map<String, ConnectionType> connections) {
        this.connections = connections;
        this.extensions = extensions;
        this.packages = packages;
        this.objects = objects;
        this.sources = sources;
    }

    void check() {
        for (var object : objects.values()) {
            object.fields().forEach(field -> check(object, null, field));
            object.parts()
                    .forEach(part -> part.fields().forEach(field -> check(object, part, field)));
        }
    }

    private void check(ObjectType object, @Nullable Part part, Field field) {
        var source = sourceOf(object, field);
        if (source != null && field.type() instanceof OutsideChoiceType outside) {
            checkLookup(source, object, outside, at(part, field, "from"));
            return;
        }
        if (source == null
                || !(field.type() instanceof FieldType.Reference(var to, var inverse))
                || to.isEmpty()) {
            return;
        }
        var target = objects.get(to);
        if (target == null) {
            source.error(
                    DefinitionCode.UNKNOWN_OBJECT,
                    "There is no object %s.".formatted(Quoted.of(to)),
                    Nearest.to(to, objects.keySet()).orElse(null),
                    at(part, field, "to"));
            return;
        }
        if (!PackageSight.reaches(packages, object.packageName(), target.packageName())) {
            source.error(
                    DefinitionCode.NOT_VISIBLE,
                    "%s is in the package %s, which %s does not depend on; add it to \"depends\" in package.yaml."
                            .formatted(to, target.packageName(), object.packageName()),
                    null,
                    at(part, field, "to"));
        }
        if (inverse != null) {
            checkInverse(source, target, inverse, at(part, field, "inverse"));
        }
    }

    private void checkLookup(
            Source source, ObjectType object, OutsideChoiceType field, String[] place) {
        var connection = connections.get(field.connection());
        if (connection == null) {
            source.error(
                    DefinitionCode.UNKNOWN_CONNECTION,
                    "There is no connection %s.".formatted(Quoted.of(field.connection())),
                    Nearest.to(field.connection(), connections.keySet()).orElse(null),
                    place);
            return;
        }
        var from = source.file().substring(0, source.file().indexOf('/'));
        if (!PackageSight.reaches(packages, from, connection.packageName())) {
            source.error(
                    DefinitionCode.NOT_VISIBLE,
                    "%s is in the package %s, which %s does not depend on; add it to \"depends\" in package.yaml."
                            .formatted(connection.name(), connection.packageName(), from),
                    null,
                    place);
        }
        if (connection.lookup(field.lookupName()).isEmpty()) {
            var names = connection.lookups().stream().map(LookupType::name).toList();
            source.error(
                    DefinitionCode.UNKNOWN_CONNECTION,
                    names.isEmpty()
                            ? "%s has no lookups.".formatted(connection.name())
                            : "%s has no lookup %s; it has %s."
                                    .formatted(
                                            connection.name(),
                                            Quoted.of(field.lookupName()),
                                            String.join(", ", names)),
                    Nearest.to(field.lookupName(), names)
                            .map(near -> connection.name() + "." + near)
                            .orElse(null),
                    place);
        }
        if (object.key().contains(place[place.length - 2])) {
            source.error(
                    DefinitionCode.BAD_KEY,
                    "A key does not come from an outside service; keep its code in a field of type"
                            + " text.",
                    null,
                    place);
        }
    }

    /** The file a field stands in: the object's own, or an extension's. */
    private @Nullable Source sourceOf(ObjectType object, Field field) {
        return extensions.getOrDefault(object.name(), List.of()).stream()
                .filter(one -> Source.mapping(one.root(), "fields").get(field.name()).isPresent())
                .findFirst()
                .orElse(sources.get(object.name()));
    }

    private void checkInverse(Source source, ObjectType target, String inverse, String[] place) {
        boolean taken =
                target.fields().find(inverse).isPresent()
                        || target.part(inverse).isPresent()
                        || Names.isReserved(inverse)
                        || !inverses.computeIfAbsent(target.name(), _ -> new HashSet<>())
                                .add(inverse);
        if (taken) {
            source.error(
                    DefinitionCode.DUPLICATE_NAME,
                    "%s already has something called %s; choose another name for the inverse."
                            .formatted(target.name(), Quoted.of(inverse)),
                    null,
                    place);
        }
    }

    private static String[] at(@Nullable Part part, Field field, String key) {
        return part == null
                ? new String[] {"fields", field.name(), key}
                : new String[] {"parts", part.name(), "fields", field.name(), key};
    }
}
