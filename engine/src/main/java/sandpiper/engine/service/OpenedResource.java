package sandpiper.engine.service;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.Expected;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.service.DeniedException.Reason;
import sandpiper.logic.Quoted;
import sandpiper.model.Names;
import sandpiper.model.release.CallType;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;

/**
 * A resource of a service in the hands of a caller: what is granted, how far it reaches, and the
 * commands that can be given. For one release; immutable.
 *
 * @param type as it is defined
 */
public record OpenedResource(OpenedService service, ResourceType type) implements Grants {
    private Actor actor() {
        return service.actor();
    }

    private Optional<RecordScope> scopeOf(String wanted) {
        return actor().scope(service.type().name(), type.name(), wanted);
    }

    private static String name(Operation operation) {
        return operation.name().toLowerCase(Locale.ROOT);
    }

    /** The records a grant of an operation reaches; nothing when it is not granted. */
    public Optional<RecordScope> grant(Operation operation) {
        return scopeOf(name(operation));
    }

    public boolean isGranted(Operation operation) {
        return grant(operation).isPresent();
    }

    /**
     * Lets only those go on to whom an operation is granted, and only when it is offered.
     *
     * @throws DeniedException otherwise
     */
    public OpenedResource require(Operation operation) {
        if (!isGranted(operation)) {
            throw new DeniedException(Reason.NOT_GRANTED, "This operation is not granted to you.");
        }
        if (!type.offers(operation)) {
            throw new DeniedException(
                    Reason.NOT_OFFERED,
                    "%s does not offer %s.".formatted(type.name(), name(operation)));
        }
        return this;
    }

    @Override
    public RecordScope granted(Right right) {
        var wanted =
                switch (right) {
                    case Right.Of(var action) ->
                            name(
                                    switch (action) {
                                        case VIEW -> Operation.READ;
                                        case CREATE -> Operation.CREATE;
                                        case EDIT -> Operation.UPDATE;
                                        case RETIRE -> Operation.REMOVE;
                                    });
                    case Right.Calling(var call) -> call;
                };
        return scopeOf(wanted).orElseThrow(OpenedResource::notGranted);
    }

    private static DeniedException notGranted() {
        return new DeniedException(Reason.NOT_GRANTED, "This is not granted to you.");
    }

    /** The records a resource is defined to have. */
    @Override
    public RecordScope shown() {
        var where = type.where();
        return where == null ? RecordScope.ALL : RecordScope.ALL.and(where.text());
    }

    /**
     * The records that reading or finding reaches.
     *
     * @throws DeniedException when it is not granted
     */
    public RecordScope seen(Operation operation) {
        return grant(operation).orElseThrow(OpenedResource::notGranted).and(shown());
    }

    /** The fields of an operation that is offered. */
    public FieldTree tree(Operation operation) {
        return type.tree(operation).orElseThrow();
    }

    /** Creating a record with these values, and a public id unless that is {@code null}. */
    public RecordCommand create(Map<String, @Nullable Object> values, @Nullable UUID id) {
        require(Operation.CREATE);
        return new RecordCommand.Create(
                type.object(), tree(Operation.CREATE), values, type.presets(), id);
    }

    /** Changing what is given of a record. */
    public RecordCommand change(
            String key, Map<String, @Nullable Object> values, @Nullable Expected expected) {
        require(Operation.UPDATE);
        return new RecordCommand.Change(
                type.object(), tree(Operation.UPDATE), key, values, expected);
    }

    /**
     * Creating or changing by key, for which both are needed; the key may be among the values.
     *
     * @param merges see {@link RecordCommand.Save}
     */
    public RecordCommand save(
            @Nullable String key,
            Map<String, @Nullable Object> values,
            boolean merges,
            @Nullable Expected expected) {
        require(Operation.UPDATE).require(Operation.CREATE);
        return new RecordCommand.Save(
                type.object(),
                tree(Operation.CREATE),
                tree(Operation.UPDATE),
                key,
                values,
                type.presets(),
                merges,
                expected);
    }

    /** Retiring or deleting a record. */
    public RecordCommand remove(String key, @Nullable Expected expected) {
        require(Operation.REMOVE);
        return new RecordCommand.Remove(type.object(), key, expected);
    }

    /**
     * What is called on a record by its address.
     *
     * @throws DeniedException when there is no such call
     */
    public CallType call(String address) {
        return type.call(address)
                .orElseThrow(() ->
                        new DeniedException(
                                Reason.UNKNOWN,
                                "%s has no call %s.%s"
                                        .formatted(type.name(), Quoted.of(address), calls())));
    }

    private String calls() {
        var names = type.calls().stream().map(call -> Names.address(call.name())).toList();
        return names.isEmpty() ? "" : " It has " + String.join(", ", names) + ".";
    }

    /**
     * Lets only those go on to whom a call is granted.
     *
     * @throws DeniedException for all others
     */
    public void require(CallType call) {
        if (scopeOf(call.name()).isEmpty()) {
            throw new DeniedException(Reason.NOT_GRANTED, "This call is not granted to you.");
        }
    }

    /** Taking a transition, or calling a function on a record. */
    public RecordCommand call(
            CallType call,
            String key,
            Map<String, @Nullable Object> arguments,
            @Nullable Expected expected) {
        require(call);
        return switch (call) {
            case CallType.OfTransition(var transition) -> {
                if (!arguments.isEmpty()) {
                    throw new DeniedException(
                            Reason.MEANINGLESS,
                            "%s takes no values; leave the body empty."
                                    .formatted(Names.address(call.name())));
                }
                yield new RecordCommand.Transit(type.object(), key, transition.name(), expected);
            }
            case CallType.OfFunction(var function) ->
                    new RecordCommand.Call(
                            type.object(), key, function.name(), arguments, expected);
        };
    }

    /**
     * A command with who wants it and how far it reaches.
     *
     * @throws DeniedException when something that it needs is not granted at all
     */
    public Request request(
            RecordCommand command, boolean traced, Request.@Nullable Once once, Leave leave) {
        return new Request(
                command,
                actor(),
                service.via(),
                false,
                traced,
                once,
                before(command),
                after(command),
                type.versioned(),
                leave);
    }

    /** What a caller may be answered with who sees no records: what can be given, and the key. */
    public FieldTree given() {
        var given = FieldTree.EMPTY;
        for (var operation : List.of(Operation.UPDATE, Operation.CREATE)) {
            if (type.offers(operation) && isGranted(operation)) {
                given = given.and(tree(operation));
            }
        }
        var keys = type.object().keyFields().stream().map(FieldPath::of).toList();
        return new FieldTree(keys, List.of()).and(given);
    }

    /** The fields of a single record, where the caller may read each that a query finds. */
    public FieldTree alsoReadable() {
        var read = grant(Operation.READ);
        boolean all =
                read.isPresent()
                        && (read.get().equals(RecordScope.ALL)
                                || read.equals(grant(Operation.QUERY)));
        return all ? type.tree(Operation.READ).orElse(FieldTree.EMPTY) : FieldTree.EMPTY;
    }
}
