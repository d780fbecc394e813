package sandpiper.engine.work;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.access.RecordScope;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.ResourceType.Operation;

/**
 * Which records somebody can choose in a reference: those that a condition of the own grants lets
 * be seen. Where nothing of an object is granted, its records are known by their keys alone and can
 * be chosen.
 */
public final class Reach {
    private final Workspace workspace;
    private final Actor actor;
    private final Map<ObjectType, List<RecordScope>> known = new HashMap<>();

    public Reach(Workspace workspace, Actor actor) {
        this.workspace = workspace;
        this.actor = actor;
    }

    /** Whether a record is there for the one who asks. */
    public boolean includes(ObjectType object, long number) {
        var scopes = known.computeIfAbsent(object, this::seen);
        return scopes.isEmpty()
                || scopes.contains(RecordScope.ALL)
                || scopes.stream()
                        .anyMatch(scope ->
                                workspace.isWithin(scope, workspace.record(object, number)));
    }

    private List<RecordScope> seen(ObjectType object) {
        return switch (actor.kind()) {
            case SYSTEM -> List.of();
            case USER -> actor.on(object.name()).scope(Action.VIEW).stream().toList();
            case CLIENT ->
                    workspace.release().services().stream()
                            .flatMap(service ->
                                    service.resources().stream()
                                            .filter(resource -> resource.object().equals(object))
                                            .flatMap(resource ->
                                                    List.of(Operation.READ, Operation.QUERY)
                                                            .stream()
                                                            .filter(resource::offers)
                                                            .flatMap(operation ->
                                                                    Rights.granted(
                                                                            actor, service,
                                                                            resource, operation)
                                                                            .stream())))
                            .toList();
        };
    }
}
