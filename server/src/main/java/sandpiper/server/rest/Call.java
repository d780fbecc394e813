package sandpiper.server.rest;

import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.web.util.UriUtils;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.port.Session;
import sandpiper.engine.write.LiveRelease;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.json.JsonText;
import sandpiper.server.service.Answer;
import sandpiper.server.service.Preconditions;
import sandpiper.server.service.Protocol;
import sandpiper.server.service.ServiceCall;

/** One call over REST: its address, and how it is answered. */
final class Call {
    private final ServiceCall service;
    private final String base;

    Call(Engine engine, Actor actor, String serviceName, int version, String resourceName) {
        this.service =
                new ServiceCall(engine, Protocol.REST, actor, serviceName, version, resourceName);
        this.base = "/api/%s/v%d/%s".formatted(serviceName, version, resourceName);
    }

    /** What it asks for, whatever the protocol. */
    ServiceCall service() {
        return service;
    }

    /**
     * What was done is answered with: the record as it is now; what a function gave back, and the
     * record beside it when it was called on one.
     */
    Answer answer(LiveRelease live, Session session, Outcome.Success success) {
        return switch (success) {
            case Outcome.Done done -> answer(live, session, done);
            case Outcome.Returned returned -> {
                var result = returned.result();
                var body = new LinkedHashMap<String, @Nullable Object>();
                body.put("result", result == null ? null : result.value());
                yield new Answer(200, null, null, JsonText.write(body));
            }
        };
    }

    private Answer answer(LiveRelease live, Session session, Outcome.Done done) {
        var resource = service.shown(live);
        var tree = service.answerTree(live, session, done);
        var view = service.changed(live, session, done, tree);
        return new Answer(
                done.created() ? 201 : 200,
                location(live, session, resource, done),
                Preconditions.tag(view.version()),
                JsonText.write(given(done, ServiceCall.plain(tree, view))));
    }

    private static Map<String, @Nullable Object> given(
            Outcome.Done done, Map<String, @Nullable Object> record) {
        var result = done.result();
        if (result == null) {
            return record;
        }
        var both = new LinkedHashMap<String, @Nullable Object>();
        both.put("result", result.value());
        both.put("record", record);
        return both;
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
        return base;
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
