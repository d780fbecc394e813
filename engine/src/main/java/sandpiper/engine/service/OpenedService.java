package sandpiper.engine.service;

import java.util.Map;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.service.DeniedException.Reason;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ServiceType;

/**
 * A service in the hands of a caller who may see it. For one release; immutable.
 *
 * @param type as it is defined
 */
public record OpenedService(Release release, Actor actor, ServiceType type) {
    /**
     * Opens a service to those who may see it; to all others it is not there.
     *
     * @param spoken whether it is offered in the protocol that is meant
     * @param title of the protocol, as people call it
     * @throws DeniedException when there is none
     */
    public static OpenedService of(
            Release release,
            Actor actor,
            String name,
            int version,
            Predicate<ServiceType> spoken,
            String title) {
        return release.service(name, version)
                .filter(service -> actor.maySee(name) && spoken.test(service))
                .map(service -> new OpenedService(release, actor, service))
                .orElseThrow(() ->
                        new DeniedException(
                                Reason.UNKNOWN,
                                "There is no service %s v%d over %s for you."
                                        .formatted(name, version, title)));
    }

    /** The way in, for the history. */
    public String via() {
        return type.name() + " v" + type.version();
    }

    /**
     * One of its resources, whatever is done with it.
     *
     * @throws DeniedException when there is none
     */
    public OpenedResource resource(String name) {
        return type.resource(name)
                .map(resource -> new OpenedResource(this, resource))
                .orElseThrow(() -> unknownResource(name));
    }

    private DeniedException unknownResource(String name) {
        var names = type.resources().stream().map(ResourceType::name).toList();
        return new DeniedException(
                Reason.UNKNOWN,
                "%s has no resource %s; there are %s.%s"
                        .formatted(
                                type.titled(),
                                Quoted.of(name),
                                String.join(", ", names),
                                Nearest.to(name, names)
                                        .map(near -> " Did you mean " + near + "?")
                                        .orElse("")));
    }

    /**
     * The function of the service at an address.
     *
     * @return {@code null} when there is none
     */
    public @Nullable ObjectFunctionType function(String address) {
        return type.function(address).orElse(null);
    }

    /**
     * Lets only those go on to whom a function of the service is granted.
     *
     * @throws DeniedException for all others
     */
    public void require(ObjectFunctionType function) {
        if (!actor.may(type.name(), ServiceType.FUNCTIONS, function.name())) {
            throw new DeniedException(Reason.NOT_GRANTED, "This function is not granted to you.");
        }
    }

    /** Calling a function of the service, which is about no record. */
    public RecordCommand call(
            ObjectFunctionType function, Map<String, @Nullable Object> arguments) {
        require(function);
        return new RecordCommand.Call(function.object(), null, function.name(), arguments, null);
    }

    /** A command that is about no record, with who wants it. */
    public Request request(
            RecordCommand.Call command, boolean traced, Request.@Nullable Once once) {
        return new Request(command, actor, via(), false, traced, once);
    }
}
