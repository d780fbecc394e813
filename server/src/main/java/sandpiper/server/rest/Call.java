package sandpiper.server.rest;

import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.util.UriUtils;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.port.Session;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.read.RecordView;
import sandpiper.engine.write.LiveRelease;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.Names;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Lifecycle;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;
import sandpiper.server.json.JsonText;
import sandpiper.server.problem.ProblemException;

/**
 * One call of a service: which resource is meant, whether the caller may, and how its records are
 * written.
 */
final class Call {
    private final Engine engine;
    private final Actor actor;
    private final String serviceName;
    private final int version;
    private final String resourceName;

    Call(Engine engine, Actor actor, String serviceName, int version, String resourceName) {
        this.engine = engine;
        this.actor = actor;
        this.serviceName = serviceName;
        this.version = version;
        this.resourceName = resourceName;
    }

    Actor actor() {
        return actor;
    }

    /** The way in, for the history. */
    String via() {
        return serviceName + " v" + version;
    }

    /** The resource in a release, when the operation is offered and granted. */
    ResourceType resource(LiveRelease live, Operation operation) {
        var service = service(live, actor, serviceName, version);
        var resource = service.resource(resourceName).orElseThrow(() -> unknownResource(service));
        if (!actor.may(serviceName, resourceName, operation)) {
            throw new ProblemException(
                    HttpStatus.FORBIDDEN, "This operation is not granted to you.");
        }
        if (!resource.offers(operation)) {
            throw new ProblemException(
                    HttpStatus.METHOD_NOT_ALLOWED,
                    "%s does not offer %s."
                            .formatted(
                                    resourceName,
                                    operation.name().toLowerCase(java.util.Locale.ROOT)));
        }
        return resource;
    }

    /** The transition that is called, when it is offered and granted. */
    Lifecycle.Transition transition(LiveRelease live, String address) {
        var service = service(live, actor, serviceName, version);
        var resource = service.resource(resourceName).orElseThrow(() -> unknownResource(service));
        var transition =
                resource.transition(address)
                        .orElseThrow(() ->
                                new ProblemException(
                                        HttpStatus.NOT_FOUND,
                                        "%s has no call %s.%s"
                                                .formatted(
                                                        resourceName,
                                                        Quoted.of(address),
                                                        calls(resource))));
        if (!actor.may(serviceName, resourceName, transition.name())) {
            throw new ProblemException(HttpStatus.FORBIDDEN, "This call is not granted to you.");
        }
        return transition;
    }

    private static String calls(ResourceType resource) {
        var names =
                resource.transitions().stream()
                        .map(transition -> Names.address(transition.name()))
                        .toList();
        return names.isEmpty() ? "" : " It has " + String.join(", ", names) + ".";
    }

    /** The resource, whatever is done with it. */
    ResourceType shown(LiveRelease live) {
        var service = service(live, actor, serviceName, version);
        return service.resource(resourceName).orElseThrow(() -> unknownResource(service));
    }

    /** A service, to those who may see it; to all others it is not there. */
    static ServiceType service(LiveRelease live, Actor actor, String name, int version) {
        return live.release()
                .service(name, version)
                .filter(_ -> actor.maySee(name))
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND,
                                "There is no service %s v%d for you.".formatted(name, version)));
    }

    private ProblemException unknownResource(ServiceType service) {
        var names = service.resources().stream().map(ResourceType::name).toList();
        return new ProblemException(
                HttpStatus.NOT_FOUND,
                "%s has no resource %s; there are %s.%s"
                        .formatted(
                                service.titled(),
                                Quoted.of(resourceName),
                                String.join(", ", names),
                                Nearest.to(resourceName, names)
                                        .map(near -> " Did you mean " + near + "?")
                                        .orElse("")));
    }

    /**
     * A record as the service shows it; {@code chosen} are the names to keep, or {@code null} for
     * all.
     */
    static Map<String, @Nullable Object> plain(
            FieldTree tree, RecordView view, @Nullable List<String> chosen) {
        var plain = new LinkedHashMap<String, @Nullable Object>();
        plain.put("id", view.id().toString());
        plain.put("version", view.version());
        plain.putAll(
                chosen == null ? PlainRecords.of(tree, view) : PlainRecords.of(tree, view, chosen));
        return plain;
    }

    /** The names a caller may choose from a tree. */
    static List<String> names(FieldTree tree) {
        var names =
                new java.util.ArrayList<>(
                        tree.paths().stream().map(path -> path.written()).toList());
        tree.parts().forEach(part -> names.add(part.part().name()));
        return names;
    }

    /** What a change is answered with: the record as it is now. */
    Answer answer(LiveRelease live, Session session, Outcome.Done done) {
        var resource = shown(live);
        var tree = resource.answerTree();
        var view =
                engine.records()
                        .view(live, session, done.object(), done.number(), tree)
                        .orElseThrow(() ->
                                new ProblemException(
                                        HttpStatus.NOT_FOUND, "The record was removed meanwhile."));
        return new Answer(
                done.created() ? 201 : 200,
                location(live, session, resource, done),
                Preconditions.tag(view.version()),
                JsonText.write(plain(tree, view, null)));
    }

    private @Nullable String location(
            LiveRelease live, Session session, ResourceType resource, Outcome.Done done) {
        if (!resource.offers(Operation.READ)) {
            return null;
        }
        var object = done.object();
        var key =
                object.key().isEmpty()
                        ? done.id().toString()
                        : live.records()
                                .keyOf(session, object, done.number())
                                .map(values -> sandpiper.engine.read.KeyText.write(object, values))
                                .orElse(done.id().toString());
        return "%s/%s".formatted(base(), UriUtils.encode(key, StandardCharsets.UTF_8));
    }

    /** The address of the resource, from the root of the server. */
    String base() {
        return "/api/%s/v%d/%s".formatted(serviceName, version, resourceName);
    }

    Engine engine() {
        return engine;
    }

    /** Query parameters in a fixed order, to tell queries apart. */
    static String fingerprint(Map<String, String[]> parameters) {
        var text = new StringBuilder();
        new TreeMap<>(parameters)
                .forEach((name, values) -> {
                    if (name.equals("filter")
                            || name.equals("sort")
                            || name.equals("retired")
                            || name.equals("search")) {
                        text.append(name).append('=').append(String.join(",", values)).append('&');
                    }
                });
        return text.toString();
    }
}
