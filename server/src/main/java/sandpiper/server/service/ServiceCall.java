package sandpiper.server.service;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.Session;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.record.Query;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.release.LiveRelease;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.condition.Condition;
import sandpiper.model.Names;
import sandpiper.model.release.CallType;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;
import sandpiper.server.json.Bounds;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.traffic.CallNotes;

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
    private final Leave leave;

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
        this.leave = Confirmed.ofThis();
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
        var resource = shown(live);
        note(operation.name().toLowerCase(Locale.ROOT));
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

    /** Only what there is is noted: names of callers' own making would never end. */
    private void note(String operation) {
        CallNotes.called(
                serviceName, version, resourceName, operation, protocol.title(), actor.name());
    }

    /** The records of a resource that an operation or call of the caller can reach. */
    private RecordScope scope(ResourceType resource, String wanted) {
        var where = resource.where();
        return granted(wanted).and(where == null ? null : where.text());
    }

    private RecordScope scope(ResourceType resource, Operation operation) {
        return scope(resource, operation.name().toLowerCase(Locale.ROOT));
    }

    private RecordScope granted(String wanted) {
        return actor.scope(serviceName, resourceName, wanted)
                .orElseThrow(() ->
                        new ProblemException(HttpStatus.FORBIDDEN, "This is not granted to you."));
    }

    /** A command with who wants it and how far they reach. */
    public Request request(
            LiveRelease live, RecordCommand command, boolean traced, Request.@Nullable Once once) {
        if (command instanceof RecordCommand.Call call && call.key() == null) {
            return new Request(command, actor, via(), false, traced, once);
        }
        var resource = shown(live);
        var scope =
                switch (command) {
                    case RecordCommand.Create _ -> RecordScope.ALL;
                    case RecordCommand.Transit transit -> scope(resource, transit.transition());
                    case RecordCommand.Call call -> scope(resource, call.function());
                    case RecordCommand.Remove _ -> scope(resource, Operation.REMOVE);
                    default -> scope(resource, Operation.UPDATE);
                };
        // What a resource shows may be left by a change; what is granted may not.
        var after =
                switch (command) {
                    case RecordCommand.Create _ -> granted("create");
                    case RecordCommand.Save _ -> granted("create").and(granted("update"));
                    case RecordCommand.Change _ -> granted("update");
                    default -> RecordScope.ALL;
                };
        return new Request(
                command,
                actor,
                via(),
                false,
                traced,
                once,
                scope,
                after,
                resource.versioned(),
                leave);
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

    /** Taking a transition, or calling a function on a record, if it may be. */
    public RecordCommand call(
            LiveRelease live,
            String key,
            String address,
            Map<String, @Nullable Object> arguments,
            @Nullable Long expected) {
        var object = shown(live).object();
        return switch (callable(live, address)) {
            case CallType.OfTransition(var transition) -> {
                if (!arguments.isEmpty()) {
                    throw new ProblemException(
                            HttpStatus.BAD_REQUEST,
                            "%s takes no values; leave the body empty.".formatted(address));
                }
                yield new RecordCommand.Transit(object, key, transition.name(), expected);
            }
            case CallType.OfFunction(var function) ->
                    new RecordCommand.Call(object, key, function.name(), arguments, expected);
        };
    }

    /** The function of the service that is called, when it is granted; nothing for no function. */
    public Optional<ObjectFunctionType> function(LiveRelease live, String address) {
        var service = service(live, protocol, actor, serviceName, version);
        var function = service.function(address);
        function.ifPresent(found -> {
            note(found.name());
            if (!actor.may(serviceName, ServiceType.FUNCTIONS, found.name())) {
                throw new ProblemException(
                        HttpStatus.FORBIDDEN, "This function is not granted to you.");
            }
        });
        return function;
    }

    /** Calling a function of the service. */
    public RecordCommand call(
            LiveRelease live, String address, Map<String, @Nullable Object> arguments) {
        var function =
                function(live, address)
                        .orElseThrow(() ->
                                new ProblemException(
                                        HttpStatus.NOT_FOUND,
                                        "There is no function %s.".formatted(Quoted.of(address))));
        return new RecordCommand.Call(function.object(), null, function.name(), arguments, null);
    }

    /** A record the call can reach, with the fields that are read of it. */
    public RecordView read(LiveRelease live, Session session, String key) {
        var tree = resource(live, Operation.READ).tree(Operation.READ).orElseThrow();
        return read(live, session, key, tree);
    }

    /** The same with some of the fields. */
    public RecordView read(LiveRelease live, Session session, String key, FieldTree tree) {
        var type = resource(live, Operation.READ);
        return engine.records()
                .find(live, session, type.object(), key, tree, scope(type, Operation.READ))
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND,
                                "There is no %s %s."
                                        .formatted(type.object().label(), Quoted.of(key))));
    }

    /** Some fields of a record as it is after a change; see {@link #answerTree}. */
    public RecordView changed(
            LiveRelease live, Session session, Outcome.Done done, FieldTree tree) {
        return engine.records()
                .view(live, session, done.object(), done.number(), tree)
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
        var sortable = resource.sortable().stream().map(FieldPath::written).toList();
        var clock = engine.clock().withZone(object.zone());
        return new Query(
                object,
                resource.tree(Operation.QUERY).orElseThrow(),
                Condition.both(
                        engine.records().condition(live, object, scope(resource, Operation.QUERY)),
                        reader.filter(text ->
                                live.logic()
                                        .filters()
                                        .check(
                                                via() + " " + resourceName,
                                                text,
                                                () ->
                                                        new FilterableRecordType(
                                                                whole, resource.filterable()),
                                                clock))),
                null,
                reader.sort(
                        sortable,
                        name -> resource.sortable().get(sortable.indexOf(name)),
                        whole,
                        clock),
                false,
                after,
                0,
                reader.limit(Bounds.now().usualPage(), Bounds.now().page()),
                reader.flag("count"),
                Query.Retired.WITHOUT);
    }

    /**
     * What a changed record is answered with: as it is read by those who may read it; otherwise
     * what can be given, and the key.
     */
    public FieldTree answerTree(LiveRelease live, Session session, Outcome.Done done) {
        var type = shown(live);
        for (var operation : List.of(Operation.READ, Operation.QUERY)) {
            if (type.offers(operation) && reaches(live, session, done, operation)) {
                return type.tree(operation).orElseThrow();
            }
        }
        var given = FieldTree.EMPTY;
        for (var operation : List.of(Operation.UPDATE, Operation.CREATE)) {
            if (type.offers(operation) && isGranted(operation)) {
                given = given.and(type.tree(operation).orElseThrow());
            }
        }
        var keys = type.object().keyFields().stream().map(FieldPath::of).toList();
        return new FieldTree(keys, List.of()).and(given);
    }

    /** Whether a grant reaches a record; the resource's own condition may be left by a change. */
    private boolean reaches(
            LiveRelease live, Session session, Outcome.Done done, Operation operation) {
        var scope = reach(operation);
        return scope.isPresent()
                && engine.records()
                        .isWithin(live, session, done.object(), done.number(), scope.get());
    }

    private Optional<RecordScope> reach(Operation operation) {
        return actor.scope(serviceName, resourceName, operation.name().toLowerCase(Locale.ROOT));
    }

    /** The fields of a single record, where the caller may read each that a query finds. */
    public FieldTree alsoReadable(LiveRelease live) {
        var read = reach(Operation.READ);
        boolean all =
                read.isPresent()
                        && (read.get().equals(RecordScope.ALL)
                                || read.equals(reach(Operation.QUERY)));
        return all ? shown(live).tree(Operation.READ).orElse(FieldTree.EMPTY) : FieldTree.EMPTY;
    }

    /**
     * A condition over all fields of the resource's records, made here and so known to be right.
     */
    public @Nullable Condition condition(LiveRelease live, String text) {
        var object = shown(live).object();
        var reader = new QueryReader(Map.of("filter", new String[] {text}), List.of("filter"));
        return reader.filter(
                live.release().recordType(object), engine.clock().withZone(object.zone()));
    }

    /** Whether an operation of the resource is granted. */
    public boolean isGranted(Operation operation) {
        return actor.may(serviceName, resourceName, operation);
    }

    /** What is called on a record, when it is offered and granted. */
    public CallType callable(LiveRelease live, String address) {
        var resource = shown(live);
        note("");
        var call =
                resource.call(address)
                        .orElseThrow(() ->
                                new ProblemException(
                                        HttpStatus.NOT_FOUND,
                                        "%s has no call %s.%s"
                                                .formatted(
                                                        resourceName,
                                                        Quoted.of(address),
                                                        calls(resource))));
        note(call.name());
        if (!actor.may(serviceName, resourceName, call.name())) {
            throw new ProblemException(HttpStatus.FORBIDDEN, "This call is not granted to you.");
        }
        return call;
    }

    private static String calls(ResourceType resource) {
        var names = resource.calls().stream().map(call -> Names.address(call.name())).toList();
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
        return service(live.release(), protocol, actor, name, version);
    }

    /** The same of a release that need not be live. */
    public static ServiceType service(
            Release release, Protocol protocol, Actor actor, String name, int version) {
        return release.service(name, version)
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

    /** A record as the service shows it. */
    public static Map<String, @Nullable Object> plain(FieldTree tree, RecordView view) {
        var plain = new LinkedHashMap<String, @Nullable Object>();
        plain.put("id", view.id().toString());
        plain.put("version", view.version());
        plain.putAll(PlainRecords.of(tree, view));
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
