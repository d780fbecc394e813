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
import sandpiper.engine.record.RecordView;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.json.JsonText;
import sandpiper.server.service.Preconditions;
import sandpiper.server.service.Protocol;
import sandpiper.server.service.RecordWriter;
import sandpiper.server.service.RecordWriters;
import sandpiper.server.service.ServiceCall;
import sandpiper.server.service.StoredReply;

/** One call over REST: its address, and how it is answered. */
final class Call {
    private final RecordWriters writers;
    private final ServiceCall service;
    private final String base;

    Call(Engine engine, RecordWriters writers, Actor actor, RestPlace at) {
        this.writers = writers;
        this.service =
                new ServiceCall(
                        engine, Protocol.REST, actor, at.service(), at.version(), at.resource());
        this.base = "/api/" + at.service() + "/v" + at.version() + "/" + at.resource();
    }

    /** What it asks for, whatever the protocol. */
    ServiceCall service() {
        return service;
    }

    /**
     * What was done is answered with: the record as it is now; what a function gave back, and the
     * record beside it when it was called on one.
     */
    StoredReply answer(LiveRelease live, Session session, Outcome.Success success) {
        return switch (success) {
            case Outcome.Done done -> answer(live, session, done);
            case Outcome.Returned returned -> {
                var result = returned.result();
                var body = new LinkedHashMap<String, @Nullable Object>();
                body.put("result", result == null ? null : result.value());
                yield new StoredReply(200, null, null, JsonText.write(body));
            }
        };
    }

    private StoredReply answer(LiveRelease live, Session session, Outcome.Done done) {
        var resource = service.shown(live);
        var tree = service.answerTree(live, session, done);
        var view = service.changed(live, session, done, tree);
        return new StoredReply(
                done.created() ? 201 : 200,
                location(live, session, resource, done),
                Preconditions.tag(view.version()),
                written(done, writers.of(live, done.object(), tree), view));
    }

    private static String written(Outcome.Done done, RecordWriter writer, RecordView record) {
        var result = done.result();
        return JsonText.text(to -> {
            if (result == null) {
                writer.write(to, record);
                return;
            }
            to.writeStartObject();
            to.writeName("result");
            JsonText.write(to, result.value());
            to.writeName("record");
            writer.write(to, record);
            to.writeEndObject();
        });
    }

    private @Nullable String location(
            LiveRelease live, Session session, ResourceType resource, Outcome.Done done) {
        if (!resource.offers(Operation.READ)) {
            return null;
        }
        var key =
                service.engine()
                        .records()
                        .keyOf(live, session, done.object(), done.number())
                        .orElse(done.id().toString());
        return base + "/" + UriUtils.encode(key, StandardCharsets.UTF_8);
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
