package sandpiper.server.rest;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.web.util.UriUtils;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.json.JsonText;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.service.Changed;
import sandpiper.server.service.Preconditions;
import sandpiper.server.service.QueryParameters;
import sandpiper.server.service.RecordWriter;
import sandpiper.server.service.RecordWriters;
import sandpiper.server.service.RevisionParameter;
import sandpiper.server.service.ServiceCall;
import sandpiper.server.service.StoredReply;

/** One call over REST: its address, and how it is answered. */
final class Call {
    private final RecordWriters writers;
    private final ServiceCall service;
    private final String base;

    Call(
            Engine engine,
            RecordWriters writers,
            Actor actor,
            RestPlace at,
            HttpServletRequest request) {
        this.writers = writers;
        this.service =
                new ServiceCall(
                        engine,
                        Protocol.REST,
                        actor,
                        at.service(),
                        at.version(),
                        RevisionParameter.of(request),
                        at.resource());
        this.base = Protocol.REST.address(at.service(), at.version()) + "/" + at.resource();
    }

    /**
     * A call that changes something. What it does is said in its body and head; in its address is
     * nothing but the revision, and what is not known there is not left aside.
     */
    static Call changing(
            Engine engine,
            RecordWriters writers,
            Actor actor,
            RestPlace at,
            HttpServletRequest request) {
        QueryParameters.requireKnown(request.getParameterMap(), List.of(RevisionParameter.NAME));
        return new Call(engine, writers, actor, at, request);
    }

    /** What it asks for, whatever the protocol. */
    ServiceCall service() {
        return service;
    }

    /**
     * What was done is answered with: the record as it is now; what a function gave back, and the
     * record beside it when it was called on one.
     */
    StoredReply answer(Changed changed) {
        return changed.record()
                .map(done -> answer(changed, done))
                .orElseGet(() -> {
                    var result = changed.result();
                    var body = new LinkedHashMap<String, @Nullable Object>();
                    body.put("result", result == null ? null : result.value());
                    return new StoredReply(200, null, null, JsonText.write(body));
                });
    }

    private StoredReply answer(Changed changed, Outcome.Done done) {
        var tree = changed.tree(done);
        var view = changed.view(done, tree);
        return new StoredReply(
                done.created() ? 201 : 200,
                changed.resource().offers(Operation.READ)
                        ? base
                                + "/"
                                + UriUtils.encode(
                                        changed.key(done, tree, view), StandardCharsets.UTF_8)
                        : null,
                Preconditions.tag(view.version()),
                written(changed.result(), changed.writer(writers, done, tree), view));
    }

    private static String written(
            Outcome.@Nullable Result result, RecordWriter writer, RecordView record) {
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
