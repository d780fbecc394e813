package sandpiper.server.rest;

import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.service.FilePlace;
import sandpiper.server.service.RevisionParameter;
import sandpiper.server.service.ServiceCall;

/** What can be done at an address, as {@code Allow} says it (RFC 9110 §10.2.1). */
@Component
class AllowedMethods {
    private static final String POST = "POST";

    private final Engine engine;

    AllowedMethods(Engine engine) {
        this.engine = engine;
    }

    /**
     * The methods with commas between them.
     *
     * @throws RuntimeException when the caller sees nothing at that address, as for any call
     */
    String at(RestPlace place, Actor actor) {
        var call =
                new ServiceCall(
                        engine,
                        Protocol.REST,
                        actor,
                        place.service(),
                        place.version(),
                        RevisionParameter.NEWEST,
                        place.resource());
        var live = engine.live();
        if (place.key() == null && call.function(live, place.resource()).isPresent()) {
            return joined(POST);
        }
        var file = place.file();
        if (file != null) {
            var type = call.shown(live);
            var methods = ofFile(type, file);
            if (!methods.isEmpty()) {
                add(methods, FileCalls.isCalled(type, place), POST);
                return joined(methods.toArray(String[]::new));
            }
        }
        if (place.call() != null) {
            call.callable(live, place.call());
            return joined(POST);
        }
        return joined(methods(place, call.shown(live)));
    }

    private static String[] methods(RestPlace place, ResourceType type) {
        boolean creates = type.offers(Operation.CREATE);
        boolean updates = type.offers(Operation.UPDATE);
        var methods = new ArrayList<String>();
        if (place.batch()) {
            add(methods, creates || updates, POST);
        } else if (place.key() == null) {
            add(methods, type.offers(Operation.QUERY), "GET", "HEAD");
            add(methods, creates, POST);
        } else {
            add(methods, type.offers(Operation.READ), "GET", "HEAD");
            add(methods, updates, "PATCH");
            add(methods, creates && updates && !type.object().key().isEmpty(), "PUT");
            add(methods, type.offers(Operation.REMOVE), "DELETE");
        }
        return methods.toArray(String[]::new);
    }

    private static List<String> ofFile(ResourceType type, FilePlace place) {
        var methods = new ArrayList<String>();
        add(methods, FileCalls.file(type, Operation.READ, place).isPresent(), "GET", "HEAD");
        add(methods, FileCalls.file(type, Operation.UPDATE, place).isPresent(), "PUT", "DELETE");
        return methods;
    }

    private static void add(List<String> methods, boolean isOffered, String... more) {
        if (isOffered) {
            methods.addAll(List.of(more));
        }
    }

    private static String joined(String... methods) {
        var all = new ArrayList<>(List.of(methods));
        all.add("OPTIONS");
        return String.join(", ", all);
    }
}
