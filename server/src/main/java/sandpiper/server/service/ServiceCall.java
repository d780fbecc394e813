package sandpiper.server.service;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.Expected;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.Session;
import sandpiper.engine.record.Query;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.service.OpenedResource;
import sandpiper.engine.service.OpenedService;
import sandpiper.logic.Quoted;
import sandpiper.logic.condition.Condition;
import sandpiper.model.release.CallType;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.protocol.Protocol;
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
    private final int revision;
    private final Leave leave;

    /**
     * @param revision of the contract the caller has, or {@link RevisionParameter#NEWEST}
     */
    public ServiceCall(
            Engine engine,
            Protocol protocol,
            Actor actor,
            String serviceName,
            int version,
            int revision,
            String resourceName) {
        this.engine = engine;
        this.protocol = protocol;
        this.actor = actor;
        this.serviceName = serviceName;
        this.version = version;
        this.resourceName = resourceName;
        this.revision = revision;
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
        return opened(live, operation).type();
    }

    private OpenedResource opened(LiveRelease live, Operation operation) {
        var resource = opened(live);
        note(operation.name().toLowerCase(Locale.ROOT));
        return resource.require(operation);
    }

    private OpenedResource opened(LiveRelease live) {
        return service(live).resource(resourceName);
    }

    private OpenedService service(LiveRelease live) {
        var opened = protocol.open(live.release(), actor, serviceName, version);
        return revision == RevisionParameter.NEWEST
                ? opened
                : new OpenedService(
                        live.release(),
                        actor,
                        RevisionParameter.narrow(engine, live, opened.type(), revision));
    }

    /** Only what there is is noted: names of callers' own making would never end. */
    private void note(String operation) {
        CallNotes.called(
                serviceName,
                version,
                revision,
                resourceName,
                operation,
                protocol.title(),
                actor.name());
    }

    /** A command with who wants it and how far they reach. */
    public Request request(
            LiveRelease live, RecordCommand command, boolean traced, Request.@Nullable Once once) {
        return command instanceof RecordCommand.Call call && call.key() == null
                ? service(live).request(call, traced, once)
                : opened(live).request(command, traced, once, leave);
    }

    /** Creating a record with these values, if it may be. */
    public RecordCommand create(LiveRelease live, Map<String, @Nullable Object> values) {
        return create(live, values, null);
    }

    /** The same with a public id that was given out before, unless it is {@code null}. */
    public RecordCommand create(
            LiveRelease live, Map<String, @Nullable Object> values, @Nullable UUID id) {
        return opened(live, Operation.CREATE).create(values, id);
    }

    /** Changing what is given of a record, if it may be. */
    public RecordCommand change(
            LiveRelease live,
            String key,
            Map<String, @Nullable Object> values,
            @Nullable Expected expected) {
        return opened(live, Operation.UPDATE).change(key, values, expected);
    }

    /**
     * Creating or changing by key, if both may be.
     *
     * @param key may be {@code null} when it is among the values
     * @param merges whether members of a value that are not named stay
     */
    public RecordCommand save(
            LiveRelease live,
            @Nullable String key,
            Map<String, @Nullable Object> values,
            boolean merges,
            @Nullable Expected expected) {
        return opened(live, Operation.UPDATE).save(key, values, merges, expected);
    }

    /** Retiring or deleting a record, if it may be. */
    public RecordCommand remove(LiveRelease live, String key, @Nullable Expected expected) {
        return opened(live, Operation.REMOVE).remove(key, expected);
    }

    /** Taking a transition, or calling a function on a record, if it may be. */
    public RecordCommand call(
            LiveRelease live,
            String key,
            String address,
            Map<String, @Nullable Object> arguments,
            @Nullable Expected expected) {
        return opened(live).call(callable(live, address), key, arguments, expected);
    }

    /** The function of the service that is called, when it is granted; nothing for no function. */
    public Optional<ObjectFunctionType> function(LiveRelease live, String address) {
        var service = service(live);
        var function = service.function(address);
        if (function != null) {
            note(function.name());
            service.require(function);
        }
        return Optional.ofNullable(function);
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
        return service(live).call(function, arguments);
    }

    /** A record the call can reach, with the fields that are read of it. */
    public RecordView read(LiveRelease live, Session session, String key) {
        var tree = resource(live, Operation.READ).tree(Operation.READ).orElseThrow();
        return read(live, session, key, tree);
    }

    /** The same with some of the fields. */
    public RecordView read(LiveRelease live, Session session, String key, FieldTree tree) {
        var resource = opened(live, Operation.READ);
        var object = resource.type().object();
        return engine.records()
                .find(live, session, object, key, tree, resource.seen(Operation.READ))
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND,
                                "There is no %s %s.".formatted(object.label(), Quoted.of(key))));
    }

    /** A query of what is asked for, within what the caller can reach. */
    public Query query(LiveRelease live, QueryRequest asked) {
        var opened = opened(live, Operation.QUERY);
        var resource = opened.type();
        var object = resource.object();
        var whole = live.release().recordType(object);
        var sortable = resource.sortable().stream().map(FieldPath::written).toList();
        var clock = engine.clock().withZone(object.zone());
        return new Query(
                object,
                resource.tree(Operation.QUERY).orElseThrow(),
                Condition.both(
                        engine.records().condition(live, object, opened.seen(Operation.QUERY)),
                        asked.condition(text ->
                                live.logic()
                                        .filters()
                                        .check(
                                                via() + " " + resourceName,
                                                text,
                                                () ->
                                                        new FilterableRecordType(
                                                                whole,
                                                                resource.filterable(),
                                                                resource.filterableItems()),
                                                clock))),
                null,
                asked.order(
                        sortable,
                        name -> resource.sortable().get(sortable.indexOf(name)),
                        whole,
                        clock),
                false,
                asked.after(),
                0,
                asked.limit(),
                asked.counted(),
                Query.Retired.WITHOUT);
    }

    /**
     * What a changed record is answered with: as it is read by those who may read it; otherwise
     * what can be given, and the key.
     */
    public FieldTree answerTree(LiveRelease live, Session session, Outcome.Done done) {
        var resource = opened(live);
        for (var operation : List.of(Operation.READ, Operation.QUERY)) {
            if (resource.type().offers(operation)
                    && reaches(live, session, done, resource.grant(operation))) {
                return resource.tree(operation);
            }
        }
        return resource.given();
    }

    /** Whether a grant reaches a record; the resource's own condition may be left by a change. */
    private boolean reaches(
            LiveRelease live, Session session, Outcome.Done done, Optional<RecordScope> scope) {
        return scope.isPresent()
                && engine.records()
                        .isWithin(live, session, done.object(), done.number(), scope.get());
    }

    /** The fields of a single record, where the caller may read each that a query finds. */
    public FieldTree alsoReadable(LiveRelease live) {
        return opened(live).alsoReadable();
    }

    /**
     * A condition over all fields of the resource's records, made here and so known to be right.
     */
    public @Nullable Condition condition(LiveRelease live, String text) {
        var object = shown(live).object();
        return Conditions.read(
                "condition",
                text,
                live.release().recordType(object),
                engine.clock().withZone(object.zone()));
    }

    /** Whether an operation of the resource is granted. */
    public boolean isGranted(Operation operation) {
        return actor.may(serviceName, resourceName, operation);
    }

    /** What is called on a record, when it is offered and granted. */
    public CallType callable(LiveRelease live, String address) {
        var resource = opened(live);
        note("");
        var call = resource.call(address);
        note(call.name());
        resource.require(call);
        return call;
    }

    /** The resource, whatever is done with it. */
    public ResourceType shown(LiveRelease live) {
        return opened(live).type();
    }

    /** The names a caller may choose from a tree. */
    public static List<String> names(FieldTree tree) {
        var names = new ArrayList<>(tree.paths().stream().map(path -> path.written()).toList());
        tree.parts().forEach(part -> names.add(part.part().name()));
        return names;
    }

    /**
     * What a function gave back, as the caller's contract has it.
     *
     * @param called what was called, by its name
     */
    public @Nullable Object narrowed(LiveRelease live, String called, @Nullable Object value) {
        if (revision == RevisionParameter.NEWEST) {
            return value;
        }
        var type = service(live).type();
        return engine.releases()
                .revisions()
                .shape(type, revision)
                .narrow(
                        type.resource(resourceName).isPresent() ? resourceName : null,
                        called,
                        value);
    }

    public Engine engine() {
        return engine;
    }
}
