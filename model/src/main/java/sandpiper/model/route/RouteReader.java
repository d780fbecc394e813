package sandpiper.model.route;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.Place;
import sandpiper.model.definition.PackageSight;
import sandpiper.model.definition.PackageType;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.RouteType;
import sandpiper.model.release.RouteType.Step;
import sandpiper.model.release.ServiceType;
import sandpiper.model.source.Source;
import sandpiper.model.type.FieldType;
import sandpiper.model.yaml.YamlNode;

/** Reads routes; the objects and references they name must be there. */
public final class RouteReader {
    private final Map<String, PackageType> packages;
    private final Map<String, ObjectType> objects;
    private final Map<String, RouteType> routes = new LinkedHashMap<>();
    private final Map<String, Source> sources = new LinkedHashMap<>();

    /** Begins with none; {@code objects} have what packages add to each other's. */
    public RouteReader(Map<String, PackageType> packages, Map<String, ObjectType> objects) {
        this.packages = packages;
        this.objects = objects;
    }

    /** The routes that were read, those left out with which something is wrong. */
    public List<RouteType> routes() {
        return List.copyOf(routes.values());
    }

    /** Whether there is a route of a name, right or wrong. */
    boolean isNamed(String name) {
        return sources.containsKey(name);
    }

    /** Reads the file of a route. */
    public void read(Source source, String packageName) {
        var root = source.root();
        var name = Source.text(root, "route").orElse("");
        if (name.isEmpty()) {
            return;
        }
        if (sources.putIfAbsent(name, source) != null) {
            source.error(
                    DefinitionCode.DUPLICATE_NAME,
                    "There is a route %s already.".formatted(Quoted.of(name)),
                    null,
                    "route");
            return;
        }
        var steps = new ArrayList<Step>();
        boolean whole = true;
        if (root.get("steps").orElse(null) instanceof YamlNode.Sequence(var items, _)) {
            for (var item : items) {
                if (item instanceof YamlNode.Mapping mapping) {
                    var step = step(source, packageName, mapping);
                    step.ifPresent(steps::add);
                    whole &= step.isPresent();
                }
            }
        }
        if (whole && steps.isEmpty()) {
            source.error(
                    DefinitionCode.MISSING_KEY, "A route needs at least one step.", null, "steps");
        } else if (whole && !isCircle(source, name, steps)) {
            routes.put(
                    name,
                    new RouteType(
                            name,
                            packageName,
                            Source.text(root, "label").orElseGet(() -> Names.label(name)),
                            Source.text(root, "describe").orElse(null),
                            steps,
                            Source.texts(root, "services")));
        }
    }

    /** Looks whether the services that routes name are there. */
    public void check(List<ServiceType> services) {
        var names = services.stream().map(ServiceType::name).distinct().toList();
        sources.values()
                .forEach(source -> {
                    if (source.root().get("services").orElse(null)
                            instanceof YamlNode.Sequence(var items, _)) {
                        for (var item : items) {
                            var named = Source.text(item);
                            if (!named.isEmpty() && !names.contains(named)) {
                                source.errorAt(
                                        item.place(),
                                        DefinitionCode.WRONG_VALUE,
                                        "There is no service %s.".formatted(Quoted.of(named)),
                                        Nearest.to(named, names).orElse(null));
                            }
                        }
                    }
                });
    }

    private Optional<Step> step(Source source, String packageName, YamlNode.Mapping step) {
        var from = Source.text(step, "from").orElse("");
        var to = Source.text(step, "to").orElse("");
        if (from.isEmpty() || to.isEmpty()) {
            return Optional.empty();
        }
        int point = to.indexOf('.');
        var target = point < 0 ? to : to.substring(0, point);
        var partName = point < 0 ? null : to.substring(point + 1);
        var object = object(source, packageName, target, step.placeOf("to"));
        var known = object(source, packageName, from, step.placeOf("from"));
        if (object.isEmpty() || known.isEmpty()) {
            return Optional.empty();
        }
        var fields = object.get().fields();
        if (partName != null) {
            var part = object.get().part(partName);
            if (part.isEmpty()) {
                source.errorAt(
                        step.placeOf("to"),
                        DefinitionCode.UNKNOWN_FIELD,
                        "%s has no line items %s.".formatted(target, Quoted.of(partName)),
                        Nearest.to(
                                        partName,
                                        object.get().parts().stream()
                                                .map(one -> one.name())
                                                .toList())
                                .orElse(null));
                return Optional.empty();
            }
            fields = part.get().fields();
        }
        var through = Source.text(step, "through").orElse("");
        if (through.isEmpty()) {
            if (partName != null && target.equals(from)) {
                return Optional.of(new Step(from, target, partName, List.of()));
            }
            source.errorAt(
                    step.place(),
                    DefinitionCode.MISSING_KEY,
                    "\"through\" is missing: the references of %s that lead to %s."
                            .formatted(to, from),
                    leadingTo(fields, from));
            return Optional.empty();
        }
        return path(source, to, fields, from, through, step.placeOf("through"))
                .map(path -> new Step(from, target, partName, path));
    }

    private static @Nullable String leadingTo(Fields fields, String object) {
        return fields.stream()
                .filter(field ->
                        field.type() instanceof FieldType.Reference(var to, _) && to.equals(object))
                .map(Field::name)
                .findFirst()
                .orElse(null);
    }

    private Optional<ObjectType> object(
            Source source, String packageName, String name, Place place) {
        var object = objects.get(name);
        if (object == null) {
            source.errorAt(
                    place,
                    DefinitionCode.UNKNOWN_OBJECT,
                    "There is no object %s.".formatted(Quoted.of(name)),
                    Nearest.to(name, objects.keySet()).orElse(null));
        } else if (!PackageSight.reaches(packages, packageName, object.packageName())) {
            source.errorAt(
                    place,
                    DefinitionCode.NOT_VISIBLE,
                    "%s is in the package %s, which %s does not depend on; add it to \"depends\" in package.yaml."
                            .formatted(name, object.packageName(), packageName),
                    null);
        }
        return Optional.ofNullable(object);
    }

    private Optional<List<String>> path(
            Source source, String of, Fields fields, String to, String written, Place place) {
        var steps = List.of(written.strip().split("\\.", -1));
        var at = fields;
        var atName = of;
        for (int i = 0; i < steps.size(); i++) {
            var name = steps.get(i);
            var field = at.find(name);
            if (field.isEmpty()) {
                source.errorAt(
                        place,
                        DefinitionCode.UNKNOWN_FIELD,
                        "%s has no field %s.".formatted(atName, Quoted.of(name)),
                        Nearest.to(name, at.names()).orElse(null));
                return Optional.empty();
            }
            if (!(field.get().type() instanceof FieldType.Reference(var next, _))) {
                source.errorAt(
                        place,
                        DefinitionCode.NOT_FOR_THIS_TYPE,
                        "%s of %s is not a reference, so it leads nowhere.".formatted(name, atName),
                        leadingTo(at, to));
                return Optional.empty();
            }
            var object = objects.get(next);
            if (object == null) {
                return Optional.empty();
            }
            at = object.fields();
            atName = next;
        }
        if (!atName.equals(to)) {
            source.errorAt(
                    place,
                    DefinitionCode.NOT_ON_ROUTE,
                    "%s leads to %s, not to %s.".formatted(written, atName, to),
                    leadingTo(fields, to));
            return Optional.empty();
        }
        return Optional.of(steps);
    }

    private static boolean isCircle(Source source, String name, List<Step> steps) {
        for (var step : steps) {
            var round = round(steps, step.from(), step.from(), List.of(step.from()));
            if (round != null) {
                source.error(
                        DefinitionCode.ROUTE_CIRCLE,
                        "The route %s leads back to where it was: %s."
                                .formatted(name, String.join(" to ", round)),
                        null,
                        "steps");
                return true;
            }
        }
        return false;
    }

    /** The way from an object back to the first, or {@code null} when there is none. */
    private static @Nullable List<String> round(
            List<Step> steps, String first, String at, List<String> way) {
        for (var step : steps) {
            if (step.part() == null && step.from().equals(at)) {
                var longer = new ArrayList<>(way);
                longer.add(step.to());
                if (step.to().equals(first)) {
                    return longer;
                }
                // What was passed already is found as a circle of its own.
                if (!way.contains(step.to())) {
                    var round = round(steps, first, step.to(), longer);
                    if (round != null) {
                        return round;
                    }
                }
            }
        }
        return null;
    }
}
