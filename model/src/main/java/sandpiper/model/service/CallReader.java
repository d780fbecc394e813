package sandpiper.model.service;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.definition.Lifecycle;
import sandpiper.model.release.CallType;
import sandpiper.model.release.EventType;
import sandpiper.model.release.FunctionDefinition;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.source.Source;
import sandpiper.model.yaml.YamlNode;

/** Reads what of a service is called, and the events it publishes. */
final class CallReader {
    private final Source source;
    private final Release release;

    CallReader(Source source, Release release) {
        this.source = source;
        this.release = release;
    }

    /**
     * What can be done with the records of a resource. A function that has the name of a transition
     * stands in for it.
     */
    List<CallType> calls(ObjectType object, String resource, YamlNode.Mapping definition) {
        var calls = new ArrayList<CallType>();
        var place = new String[] {"resources", resource, "calls"};
        for (var name : names(definition, "calls")) {
            var function = object.function(name);
            if (function.isPresent()) {
                if (isOffered(function.get(), true, object, place)) {
                    calls.add(new CallType.OfFunction(function.get()));
                }
                continue;
            }
            var transition = transition(object, name);
            if (transition.isPresent()) {
                calls.add(new CallType.OfTransition(transition.get()));
            } else {
                source.error(
                        DefinitionCode.UNKNOWN_FUNCTION,
                        "%s has neither a transition nor a function %s."
                                .formatted(object.name(), Quoted.of(name)),
                        Nearest.to(name, callable(object)).orElse(null),
                        place);
            }
        }
        return calls;
    }

    private static Optional<Lifecycle.Transition> transition(ObjectType object, String name) {
        var lifecycle = object.lifecycle();
        return lifecycle == null ? Optional.empty() : lifecycle.find(name);
    }

    private static List<String> callable(ObjectType object) {
        var lifecycle = object.lifecycle();
        return Stream.concat(
                        object.functions().stream()
                                .filter(one -> one.onRecord() && one.external())
                                .map(FunctionDefinition::name),
                        lifecycle == null
                                ? Stream.empty()
                                : lifecycle.transitions().stream().map(Lifecycle.Transition::name))
                .distinct()
                .toList();
    }

    private boolean isOffered(
            FunctionDefinition function, boolean onRecord, ObjectType object, String... place) {
        String wrong = null;
        if (!function.external()) {
            wrong = "%s is internal; it can be offered when it is external.";
        } else if (function.onRecord() && !onRecord) {
            wrong = "%s is called on a record; it belongs into calls of a resource.";
        } else if (!function.onRecord() && onRecord) {
            wrong =
                    "%s is called on the object as a whole; it belongs into functions of the"
                            + " service.";
        }
        if (wrong != null) {
            source.error(
                    DefinitionCode.UNKNOWN_FUNCTION,
                    wrong.formatted(object.name() + "." + function.name()),
                    null,
                    place);
        }
        return wrong == null;
    }

    /** Functions of objects as a whole, written {@code Stay.quote}. */
    List<ObjectFunctionType> functions(YamlNode.Mapping root, List<ResourceType> resources) {
        var functions = new ArrayList<ObjectFunctionType>();
        for (var written : names(root, "functions")) {
            int dot = written.indexOf('.');
            var object = dot < 0 ? null : release.find(written.substring(0, dot)).orElse(null);
            var function =
                    object == null
                            ? null
                            : object.function(written.substring(dot + 1)).orElse(null);
            if (object == null || function == null) {
                source.error(
                        DefinitionCode.UNKNOWN_FUNCTION,
                        "There is no function %s; write object and function, as in Stay.quote."
                                .formatted(Quoted.of(written)),
                        nearestFunction(written),
                        "functions");
                continue;
            }
            var address = Names.address(function.name());
            boolean taken =
                    resources.stream().anyMatch(one -> one.name().equals(address))
                            || functions.stream()
                                    .anyMatch(one -> Names.address(one.name()).equals(address));
            if (taken) {
                source.error(
                        DefinitionCode.DUPLICATE_NAME,
                        "The address /%s of %s is taken by another resource or function."
                                .formatted(address, written),
                        null,
                        "functions");
            } else if (isOffered(function, false, object, "functions")) {
                functions.add(ObjectFunctionType.of(release, object, function));
            }
        }
        return functions;
    }

    private @Nullable String nearestFunction(String written) {
        var all = new ArrayList<String>();
        for (var object : release.objects()) {
            object.functions().stream()
                    .filter(one -> !one.onRecord() && one.external())
                    .forEach(one -> all.add(object.name() + "." + one.name()));
        }
        return Nearest.to(written, all).orElse(null);
    }

    /** Events that are published. */
    List<EventType> events(YamlNode.Mapping root) {
        var events = new ArrayList<EventType>();
        for (var name : names(root, "events")) {
            var event = release.event(name);
            if (event.isPresent()) {
                events.add(event.get());
            } else {
                source.error(
                        DefinitionCode.UNKNOWN_EVENT,
                        "There is no event %s.".formatted(Quoted.of(name)),
                        Nearest.to(name, release.events().stream().map(EventType::name).toList())
                                .orElse(null),
                        "events");
            }
        }
        return events;
    }

    private static List<String> names(YamlNode.Mapping definition, String key) {
        return Source.texts(definition, key).stream()
                .flatMap(text -> Stream.of(text.split(",")))
                .map(String::strip)
                .filter(text -> !text.isEmpty())
                .distinct()
                .toList();
    }
}
