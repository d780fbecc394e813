package sandpiper.model.brought;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.filter.Checked;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.contract.GrantedOperation;
import sandpiper.model.definition.DeliveredRole;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ServiceType;
import sandpiper.model.source.Source;
import sandpiper.model.yaml.YamlNode;

/** Reads a role; what it names must be there. */
final class RoleReader {
    private static final Pattern OPERATION =
            Pattern.compile(
                    "([^/\\s]+)/([^/\\s]+)/(\\S+)(?:\\s+where\\s+(\\S.*))?", Pattern.DOTALL);
    private static final String OBJECTS = "objects";

    private final Source source;
    private final String packageName;
    private final Release release;
    private final List<ServiceType> services;

    /** {@code services} are those of all packages. */
    RoleReader(Source source, String packageName, Release release, List<ServiceType> services) {
        this.source = source;
        this.packageName = packageName;
        this.release = release;
        this.services = services;
    }

    DeliveredRole read(String name) {
        var root = source.root();
        var granted = Source.texts(root, "services");
        for (int i = 0; i < granted.size(); i++) {
            operation(granted.get(i));
        }
        var objects = new ArrayList<DeliveredRole.Grant>();
        for (var entry : Source.mapping(root, OBJECTS).entries()) {
            if (entry.value() instanceof YamlNode.Mapping grant) {
                objects.add(grant(entry.key().text(), grant));
            }
        }
        return new DeliveredRole(
                name,
                packageName,
                Source.text(root, "label").orElseGet(() -> Names.label(name)),
                Source.text(root, "describe").orElse(null),
                granted,
                objects);
    }

    private DeliveredRole.Grant grant(String object, YamlNode.Mapping grant) {
        var hidden = names(grant, "hidden");
        var readOnly = names(grant, "readOnly");
        if (object.equals(GrantedOperation.EVERY)) {
            if (grant.get("where").isPresent() || !hidden.isEmpty() || !readOnly.isEmpty()) {
                source.errorAtKey(
                        DefinitionCode.WRONG_VALUE,
                        "A grant on every object has no condition and names no fields.",
                        null,
                        OBJECTS,
                        object);
            }
        } else {
            named(object, grant, hidden, readOnly);
        }
        return new DeliveredRole.Grant(
                object,
                Source.texts(grant, "actions"),
                Source.text(grant, "where").orElse(null),
                hidden,
                readOnly);
    }

    private void named(
            String object, YamlNode.Mapping grant, List<String> hidden, List<String> readOnly) {
        release.find(object)
                .ifPresentOrElse(
                        found -> {
                            fields(found, hidden, "hidden");
                            fields(found, readOnly, "readOnly");
                            BroughtConditions.check(source, release, found, grant, "where");
                        },
                        () ->
                                source.errorAtKey(
                                        DefinitionCode.UNKNOWN_OBJECT,
                                        "There is no object %s.".formatted(Quoted.of(object)),
                                        Nearest.to(
                                                        object,
                                                        release.objects().stream()
                                                                .map(ObjectType::name)
                                                                .toList())
                                                .orElse(null),
                                        OBJECTS,
                                        object));
    }

    /** A list, or names with commas between them. */
    private static List<String> names(YamlNode.Mapping grant, String key) {
        return Source.texts(grant, key).stream()
                .flatMap(text -> Arrays.stream(text.split(",")))
                .map(String::strip)
                .filter(name -> !name.isEmpty())
                .toList();
    }

    private void fields(ObjectType object, List<String> names, String key) {
        var known = new LinkedHashSet<String>();
        known.addAll(object.fields().names());
        object.parts().forEach(part -> known.add(part.name()));
        for (var name : names) {
            if (!known.contains(name)) {
                source.error(
                        DefinitionCode.UNKNOWN_FIELD,
                        "%s has no field %s.".formatted(object.name(), Quoted.of(name)),
                        Nearest.to(name, known).orElse(null),
                        OBJECTS,
                        object.name(),
                        key);
            } else if (key.equals("hidden") && object.key().contains(name)) {
                source.error(
                        DefinitionCode.NOT_VISIBLE,
                        "%s is the key and cannot be hidden.".formatted(name),
                        null,
                        OBJECTS,
                        object.name(),
                        key);
            }
        }
    }

    private void operation(String grant) {
        var parts = OPERATION.matcher(grant);
        if (!parts.matches()) {
            wrong(
                    "%s is no grant; write service/resource/operation, as in berth-desk/stays/read, with * for all."
                            .formatted(Quoted.of(grant)),
                    null);
            return;
        }
        var where = parts.group(4);
        switch (GrantedOperation.of(
                services, parts.group(1), parts.group(2), parts.group(3), where != null)) {
            case GrantedOperation.Known(var objects) -> {
                if (where != null) {
                    objects.forEach(object -> condition(grant, object, where));
                }
            }
            case GrantedOperation.Unknown(var kind, var name, var known) ->
                    unknown(kind, name, known);
            case GrantedOperation.Unconditional(var resource) ->
                    wrong(
                            "A condition is about records of a resource; %s cannot have one."
                                    .formatted(resource),
                            null);
        }
    }

    private void condition(String grant, ObjectType object, String where) {
        var checked = BroughtConditions.checked(release, object, where);
        if (checked instanceof Checked.Rejected(var problems)) {
            wrong(
                    "The condition of %s does not fit %s: %s"
                            .formatted(
                                    Quoted.of(grant), object.name(), problems.getFirst().message()),
                    null);
        }
    }

    private void unknown(String kind, String name, List<String> known) {
        wrong(
                "There is no %s %s to grant.".formatted(kind, Quoted.of(name)),
                Nearest.to(name, Set.copyOf(known)).orElse(null));
    }

    private void wrong(String message, @Nullable String suggestion) {
        source.error(DefinitionCode.WRONG_VALUE, message, suggestion, "services");
    }
}
