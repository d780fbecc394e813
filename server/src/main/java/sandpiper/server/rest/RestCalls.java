package sandpiper.server.rest;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Expected;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.record.Page;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.json.JsonReader;
import sandpiper.server.json.JsonText;
import sandpiper.server.service.Cursors;
import sandpiper.server.service.Preconditions;
import sandpiper.server.service.QueryParameters;
import sandpiper.server.service.RecordWriter;
import sandpiper.server.service.RecordWriters;
import sandpiper.server.service.RevisionParameter;
import sandpiper.server.service.ServiceCall;
import tools.jackson.core.JsonGenerator;

/**
 * Every service over REST. Which resources there are, with which fields, is looked up in the live
 * release at each call.
 *
 * <p>Follows RFC 9110 (methods, conditional requests), RFC 7396 (merge patch), RFC 8288 (links) and
 * RFC 9457 (problems).
 */
@Component
class RestCalls {
    private static final List<String> QUERY_PARAMETERS =
            List.of("filter", "sort", "limit", "after", "fields", "count", RevisionParameter.NAME);

    private final Engine engine;
    private final Cursors cursors;
    private final RecordWriters writers;
    private final JsonReader json;

    RestCalls(Engine engine, Cursors cursors, RecordWriters writers, JsonReader json) {
        this.engine = engine;
        this.cursors = cursors;
        this.writers = writers;
        this.json = json;
    }

    HttpReply query(RestPlace at, Actor actor, HttpServletRequest request) {
        var call = new Call(engine, writers, actor, at, request);
        var reader = new QueryParameters(request.getParameterMap(), QUERY_PARAMETERS);
        var asked = reader.request(json.bounds().usualPage(), json.bounds().page());
        var fingerprint = call.base() + "?" + Call.fingerprint(request.getParameterMap());
        return engine.records()
                .read((live, session) -> {
                    var place = cursors.read(fingerprint, reader.text("after"));
                    var usual = call.service().query(live, asked.from(place));
                    var tree = chosen(call.service(), live, usual.tree(), reader);
                    var page = engine.records().page(live, session, usual.with(tree));
                    var next = page.next() == null ? null : cursors.write(fingerprint, page.next());
                    var writer = writers.of(live, usual.object(), tree);
                    var reply =
                            HttpReply.json(JsonText.bytes(to -> writePage(to, writer, page, next)));
                    return next == null
                            ? reply
                            : reply.with(
                                    HttpHeaders.LINK,
                                    "<" + next(call, request, next) + ">; rel=\"next\"");
                });
    }

    private static FieldTree chosen(
            ServiceCall call, LiveRelease live, FieldTree usual, QueryParameters reader) {
        if (reader.text("fields") == null) {
            return usual;
        }
        var able = usual.beside(call.alsoReadable(live));
        var names = reader.fields(ServiceCall.names(able));
        return names == null ? usual : able.only(names);
    }

    private static void writePage(
            JsonGenerator to, RecordWriter writer, Page page, @Nullable String next) {
        to.writeStartObject();
        to.writeName("items");
        to.writeStartArray();
        page.records().forEach(record -> writer.write(to, record));
        to.writeEndArray();
        if (next != null) {
            to.writeName("next");
            to.writeString(next);
        }
        if (page.total() != null) {
            to.writeName("count");
            to.writeNumber(page.total());
        }
        to.writeEndObject();
    }

    private static String next(Call call, HttpServletRequest request, String cursor) {
        var parameters = new StringBuilder("after=").append(cursor);
        request.getParameterMap()
                .forEach((name, values) -> {
                    if (!name.equals("after")) {
                        parameters
                                .append('&')
                                .append(name)
                                .append('=')
                                .append(URLEncoder.encode(values[0], StandardCharsets.UTF_8));
                    }
                });
        return call.base() + "?" + parameters;
    }

    HttpReply read(RestPlace at, Actor actor, HttpServletRequest request) {
        var call = new Call(engine, writers, actor, at, request);
        var reader =
                new QueryParameters(
                        request.getParameterMap(), List.of("fields", RevisionParameter.NAME));
        var ifNoneMatch = request.getHeader(HttpHeaders.IF_NONE_MATCH);
        return engine.records()
                .read((live, session) -> {
                    var type = call.service().resource(live, Operation.READ);
                    var whole = type.tree(Operation.READ).orElseThrow();
                    var names =
                            reader.text("fields") == null
                                    ? null
                                    : reader.fields(ServiceCall.names(whole));
                    var tree = names == null ? whole : whole.only(names);
                    var record = call.service().read(live, session, at.ofRecord(), tree);
                    var tag = Preconditions.tag(record.version());
                    if (Preconditions.isFresh(ifNoneMatch, record.version())) {
                        return HttpReply.of(HttpServletResponse.SC_NOT_MODIFIED)
                                .with(HttpHeaders.ETAG, tag);
                    }
                    var writer = writers.of(live, type.object(), tree);
                    return HttpReply.json(JsonText.bytes(to -> writer.write(to, record)))
                            .with(HttpHeaders.ETAG, tag);
                });
    }

    HttpReply create(RestPlace at, Actor actor, HttpServletRequest request) throws IOException {
        var call = Call.changing(engine, writers, actor, at, request);
        var body = json.bytes(request.getInputStream());
        return Changing.change(
                call,
                request,
                body,
                live ->
                        call.service().function(live, at.resource()).isPresent()
                                ? call.service().call(live, at.resource(), json.object(body))
                                : call.service().create(live, json.object(body)));
    }

    HttpReply update(RestPlace at, Actor actor, HttpServletRequest request) throws IOException {
        var call = Call.changing(engine, writers, actor, at, request);
        var body = json.bytes(request.getInputStream());
        var expected = expected(request);
        return Changing.change(
                call,
                request,
                body,
                live -> call.service().change(live, at.ofRecord(), json.object(body), expected));
    }

    HttpReply save(RestPlace at, Actor actor, HttpServletRequest request) throws IOException {
        var call = Call.changing(engine, writers, actor, at, request);
        var body = json.bytes(request.getInputStream());
        var expected = expected(request);
        return Changing.change(
                call,
                request,
                body,
                live ->
                        call.service()
                                .save(live, at.ofRecord(), json.object(body), false, expected));
    }

    HttpReply call(RestPlace at, Actor actor, HttpServletRequest request) throws IOException {
        var call = Call.changing(engine, writers, actor, at, request);
        var expected = expected(request);
        var body = json.bytes(request.getInputStream());
        var name = String.valueOf(at.call());
        return Changing.change(
                call,
                request,
                body,
                live -> call.service().call(live, at.ofRecord(), name, arguments(body), expected));
    }

    private static @Nullable Expected expected(HttpServletRequest request) {
        return Preconditions.expected(
                request.getHeader(HttpHeaders.IF_MATCH),
                request.getHeader(HttpHeaders.IF_NONE_MATCH));
    }

    /** Nothing at all is the same as no arguments. */
    private Map<String, @Nullable Object> arguments(byte[] body) {
        return body.length == 0 ? Map.of() : json.object(body);
    }

    HttpReply remove(RestPlace at, Actor actor, HttpServletRequest request) {
        var call = Call.changing(engine, writers, actor, at, request);
        var expected = expected(request);
        var outcome =
                engine.records()
                        .write(live ->
                                call.service()
                                        .request(
                                                live,
                                                call.service()
                                                        .remove(live, at.ofRecord(), expected),
                                                false,
                                                null));
        return outcome instanceof Outcome.Refused refused
                ? HttpReply.of(refused)
                : HttpReply.of(HttpServletResponse.SC_NO_CONTENT);
    }
}
