package sandpiper.engine.work;

import java.util.Locale;
import java.util.Optional;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.access.RecordScope;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;

/**
 * What steps may do to records besides the one they are called on. A client may change what a
 * resource lets it change.
 */
public interface Rights {
    /** Everything: rules, handlers, schedules, and functions with rights of their own. */
    Rights ALL = (_, _) -> Optional.of(RecordScope.ALL);

    /** The records of an object an action reaches, or nothing when it is not granted. */
    Optional<RecordScope> scope(ObjectType object, Action action);

    /** Those of a caller. */
    static Rights of(Release release, Actor actor) {
        return switch (actor.kind()) {
            case SYSTEM -> ALL;
            case USER -> (object, action) -> actor.on(object.name()).scope(action);
            case CLIENT -> (object, action) -> ofClient(release, actor, object, action);
        };
    }

    private static Optional<RecordScope> ofClient(
            Release release, Actor actor, ObjectType object, Action action) {
        var operation =
                switch (action) {
                    case CREATE -> Operation.CREATE;
                    case EDIT -> Operation.UPDATE;
                    case RETIRE -> Operation.REMOVE;
                    case VIEW -> Operation.READ;
                };
        for (var service : release.services()) {
            for (var resource : service.resources()) {
                if (resource.object().name().equals(object.name()) && resource.offers(operation)) {
                    var granted = granted(actor, service, resource, operation);
                    if (granted.isPresent()) {
                        return granted;
                    }
                }
            }
        }
        return Optional.empty();
    }

    /** The records of a resource that an operation reaches, or nothing when it is not granted. */
    static Optional<RecordScope> granted(
            Actor actor, ServiceType service, ResourceType resource, Operation operation) {
        var where = resource.where();
        return actor.scope(
                        service.name(), resource.name(), operation.name().toLowerCase(Locale.ROOT))
                .map(scope -> scope.and(where == null ? null : where.text()));
    }
}
