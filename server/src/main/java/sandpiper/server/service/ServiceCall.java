package sandpiper.server.service;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.Session;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.read.Query;
import sandpiper.engine.read.RecordView;
import sandpiper.engine.write.LiveRelease;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.condition.Condition;
import sandpiper.model.Names;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Lifecycle;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;
import sandpiper.server.problem.ProblemException;

/**
 * One call of a service, whatever its protocol: which resource is meant, whether the caller may,
 * and how far it reaches.
 */
public final class ServiceCall {
    private final Engine engine;
    private final Protocol protocol;
    private final Actor actor;
    private final String serviceName;
    private final int version;
    private final String resourceName;

    public ServiceCall(
            Engine engine,
            Protocol protocol,
            Actor actor,
            String serviceName,
            int version,
            String resourceName) {
        this.engine = engine;
        this.protocol = protocol;
        this.actor = actor;
        this.serviceName = serviceName;
        this.version = version;
        this.resourceName = resourceName;
    }

    public Actor actor() {
        return actor;
    }

    /** The way in, for the history. */
    public String via() {
        return serviceName + " v" + version;
    }

    /** The resource in a release, when the operation is offered and granted. */
    public ResourceType resource(LiveRelease live, Operation operation) {
        var service = service(live, protocol, actor, serviceName, version);
        var resource = service.resource(resourceName).orElseThrow(() -> unknownResource(service));
        if (!actor.may(serviceName, resourceName, operation)) {
            throw new ProblemException(
                    HttpStatus.FORBIDDEN, "This operation is not granted to you.");
        }
        if (!resource.offers(operation)) {
            throw new ProblemException(
                    HttpStatus.METHOD_NOT_ALLOWED,
                    "%s does not offer %s."
                            .formatted(resourceName, operation.name().toLowerCase(Locale.ROOT)));
        }
        return resource;
    }

    /** The records of a resource that this call can reach. */
    public RecordScope scope(ResourceType resource) {
        var where = resource.where();
        return RecordScope.ALL.and(where == null ? null : where.text());
    }

    /** A command with who wants it and how far they reach. */
    public Request request(
            LiveRelease live, RecordCommand command, boolean traced, Request.@Nullable Once once) {
        return new Request(command, actor, via(), false, traced, once, scope(shown(live)));
    }

    /** Creating a record with these values, if it may be. */
    public RecordCommand create(LiveRelease live, Map<String, @Nullable Object> values) {
        var type = resource(live, Operation.CREATE);
        return new RecordCommand.Create(
                type.object(), type.tree(Operation.CREATE).orElseThrow(), values, type.presets());
    }

    /** Changing what is given of a record, if it may be. */
    public RecordCommand change(
            LiveRelease live,
            String key,
            Map<String, @Nullable Object> values,
            @Nullable Long expected) {
        var type = resource(live, Operation.UPDATE);
        return new RecordCommand.Change(
                type.object(), type.tree(Operation.UPDATE).orElseThrow(), key, values, expected);
    }

    /** Creating or changing by key, if both may be; {@code key} may be among the values. */
    public RecordCommand save(
            LiveRelease live,
            @Nullable String key,
            Map<String, @Nullable Object> values,
            @Nullable Long expected) {
        var type = resource(live, Operation.UPDATE);
        resource(live, Operation.CREATE);
        return new RecordCommand.Save(
                type.object(),
                type.tree(Operation.CREATE).orElseThrow(),
                type.tree(Operation.UPDATE).orElseThrow(),
                key,
                values,
                type.presets(),
                expected);
    }

    /** Retiring or deleting a record, if it may be. */
    public RecordCommand remove(LiveRelease live, String key, @Nullable Long expected) {
        return new RecordCommand.Remove(resource(live, Operation.REMOVE).object(), key, expected);
    }

    /** Taking a transition, if it may be. */
    public RecordCommand transit(
            LiveRelease live, String key, String address, @Nullable Long expected) {
        return new RecordCommand.Transit(
                shown(live).object(), key, transition(live, address).name(), expected);
    }

    /** A record the call can reach, with the fields that are read of it. */
    public RecordView read(LiveRelease live, Session session, String key) {
        var type = resource(live, Operation.READ);
        var tree = type.tree(Operation.READ).orElseThrow();
        return engine.records()
                .find(live, session, type.object(), key, tree, scope(type))
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND,
                                "There is no %s %s."
                                        .formatted(type.object().label(), Quoted.of(key))));
    }

    /** A record as it is after a change, with the fields that are answered. */
    public RecordView changed(LiveRelease live, Session session, Outcome.Done done) {
        return engine.records()
                .view(live, session, done.object(), done.number(), shown(live).answerTree())
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND, "The record was removed meanwhile."));
    }

    /**
     * A query by its parameters: {@code filter}, {@code sort}, {@code limit}, {@code count} and
     * {@code after}.
     *
     * @param after the place to go on from, or {@code null} for the beginning
     */
    public Query query(
            LiveRelease live, QueryReader reader, @Nullable List<@Nullable Object> after) {
        var resource = resource(live, Operation.QUERY);
        var object = resource.object();
        var whole = live.release().recordType(object);
        var filterable = new FilterableRecordType(whole, resource.filterable());
        var sortable = resource.sortable().stream().map(FieldPath::written).toList();
        var clock = engine.clock().withZone(object.zone());
        return new Query(
                object,
                resource.tree(Operation.QUERY).orElseThrow(),
                Condition.both(
                        engine.records().condition(live, object, scope(resource)),
                        reader.filter(filterable, clock)),
                null,
                reader.sort(
                        sortable,
                        name -> resource.sortable().get(sortable.indexOf(name)),
                        whole,
                        clock),
                false,
                after,
                reader.limit(),
                reader.flag("count"),
                Query.Retired.WITHOUT);
    }

    /** The transition that is called, when it is offered and granted. */
    public Lifecycle.Transition transition(LiveRelease live, String address) {
        var service = service(live, protocol, actor, serviceName, version);
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
    public ResourceType shown(LiveRelease live) {
        var service = service(live, protocol, actor, serviceName, version);
        return service.resource(resourceName).orElseThrow(() -> unknownResource(service));
    }

    /** A service over a protocol, to those who may see it; to all others it is not there. */
    public static ServiceType service(
            LiveRelease live, Protocol protocol, Actor actor, String name, int version) {
        return live.release()
                .service(name, version)
                .filter(service -> actor.maySee(name) && protocol.isSpokenBy(service))
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND,
                                "There is no service %s v%d over %s for you."
                                        .formatted(name, version, protocol.title())));
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
    public static Map<String, @Nullable Object> plain(
            FieldTree tree, RecordView view, @Nullable List<String> chosen) {
        var plain = new LinkedHashMap<String, @Nullable Object>();
        plain.put("id", view.id().toString());
        plain.put("version", view.version());
        plain.putAll(
                chosen == null ? PlainRecords.of(tree, view) : PlainRecords.of(tree, view, chosen));
        return plain;
    }

    /** The names a caller may choose from a tree. */
    public static List<String> names(FieldTree tree) {
        var names = new ArrayList<>(tree.paths().stream().map(path -> path.written()).toList());
        tree.parts().forEach(part -> names.add(part.part().name()));
        return names;
    }

    public Engine engine() {
        return engine;
    }
}
