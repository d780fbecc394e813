package sandpiper.server.rest;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.write.LiveRelease;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.json.JsonText;
import sandpiper.server.problem.Problem;
import sandpiper.server.security.Secrets;
import sandpiper.server.service.Answer;
import sandpiper.server.service.Cursors;
import sandpiper.server.service.IdempotencyKey;
import sandpiper.server.service.Preconditions;
import sandpiper.server.service.QueryReader;
import sandpiper.server.service.ServiceCall;
import sandpiper.server.service.Traced;
import sandpiper.server.traffic.CallNotes;

/**
 * Every service over REST. Which resources there are, with which fields, is looked up in the live
 * release at each call.
 *
 * <p>Follows RFC 9110 (methods, conditional requests), RFC 7396 (merge patch), RFC 8288 (links) and
 * RFC 9457 (problems).
 */
@org.springframework.web.bind.annotation.RestController
@RequestMapping("/api/{service:[a-z0-9-]+}/v{version:\\d{1,3}}/{resource:[a-z0-9-]+}")
class RestController {
    private static final List<String> QUERY_PARAMETERS =
            List.of("filter", "sort", "limit", "after", "fields", "count");

    private final Engine engine;
    private final Cursors cursors;

    RestController(Engine engine, Cursors cursors) {
        this.engine = engine;
        this.cursors = cursors;
    }

    @GetMapping
    ResponseEntity<String> query(
            @PathVariable String service,
            @PathVariable int version,
            @PathVariable String resource,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request) {
        var call = new Call(engine, actor, service, version, resource);
        var reader = new QueryReader(request.getParameterMap(), QUERY_PARAMETERS);
        var fingerprint = call.base() + "?" + Call.fingerprint(request.getParameterMap());
        return engine.records()
                .read((live, session) -> {
                    var place = cursors.read(fingerprint, reader.text("after"));
                    var usual = call.service().query(live, reader, place);
                    var able = usual.tree().beside(call.service().alsoReadable(live));
                    var chosen = reader.fields(ServiceCall.names(able));
                    var tree = chosen == null ? usual.tree() : able.only(chosen);
                    var page = engine.records().page(live, session, usual.with(tree));
                    var items =
                            page.records().stream()
                                    .map(record -> ServiceCall.plain(tree, record))
                                    .toList();
                    var body = new LinkedHashMap<String, @Nullable Object>();
                    body.put("items", items);
                    var answer = ResponseEntity.ok().contentType(MediaType.APPLICATION_JSON);
                    if (page.next() != null) {
                        var cursor = cursors.write(fingerprint, page.next());
                        body.put("next", cursor);
                        answer.header(
                                HttpHeaders.LINK,
                                "<%s>; rel=\"next\"".formatted(next(call, request, cursor)));
                    }
                    if (page.total() != null) {
                        body.put("count", page.total());
                    }
                    return answer.body(JsonText.write(body));
                });
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

    @GetMapping("/{key}")
    ResponseEntity<String> read(
            @PathVariable String service,
            @PathVariable int version,
            @PathVariable String resource,
            @PathVariable String key,
            @RequestHeader(name = HttpHeaders.IF_NONE_MATCH, required = false)
                    @Nullable String ifNoneMatch,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request) {
        var call = new Call(engine, actor, service, version, resource);
        var reader = new QueryReader(request.getParameterMap(), List.of("fields"));
        return engine.records()
                .read((live, session) -> {
                    var type = call.service().resource(live, Operation.READ);
                    var whole = type.tree(Operation.READ).orElseThrow();
                    var chosen = reader.fields(ServiceCall.names(whole));
                    var tree = chosen == null ? whole : whole.only(chosen);
                    var record = call.service().read(live, session, key, tree);
                    var tag = Preconditions.tag(record.version());
                    if (Preconditions.isFresh(ifNoneMatch, record.version())) {
                        return ResponseEntity.status(HttpStatus.NOT_MODIFIED).eTag(tag).build();
                    }
                    return ResponseEntity.ok()
                            .header(HttpHeaders.CONTENT_TYPE, MediaType.APPLICATION_JSON_VALUE)
                            .header(HttpHeaders.ETAG, tag)
                            .body(JsonText.write(ServiceCall.plain(tree, record)));
                });
    }

    @PostMapping(consumes = MediaType.APPLICATION_JSON_VALUE)
    ResponseEntity<String> create(
            @PathVariable String service,
            @PathVariable int version,
            @PathVariable String resource,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request)
            throws IOException {
        var call = new Call(engine, actor, service, version, resource);
        var body = JsonText.bytes(request.getInputStream());
        return change(
                call,
                request,
                body,
                live ->
                        call.service().function(live, resource).isPresent()
                                ? call.service().call(live, resource, JsonText.object(body))
                                : call.service().create(live, JsonText.object(body)));
    }

    @PatchMapping(
            path = "/{key}",
            consumes = {MediaType.APPLICATION_JSON_VALUE, "application/merge-patch+json"})
    ResponseEntity<String> update(
            @PathVariable String service,
            @PathVariable int version,
            @PathVariable String resource,
            @PathVariable String key,
            @RequestHeader(name = HttpHeaders.IF_MATCH, required = false) @Nullable String ifMatch,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request)
            throws IOException {
        var call = new Call(engine, actor, service, version, resource);
        var body = JsonText.bytes(request.getInputStream());
        var expected = Preconditions.expectedVersion(ifMatch);
        return change(
                call,
                request,
                body,
                live -> call.service().change(live, key, JsonText.object(body), expected));
    }

    @PutMapping(path = "/{key}", consumes = MediaType.APPLICATION_JSON_VALUE)
    ResponseEntity<String> save(
            @PathVariable String service,
            @PathVariable int version,
            @PathVariable String resource,
            @PathVariable String key,
            @RequestHeader(name = HttpHeaders.IF_MATCH, required = false) @Nullable String ifMatch,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request)
            throws IOException {
        var call = new Call(engine, actor, service, version, resource);
        var body = JsonText.bytes(request.getInputStream());
        var expected = Preconditions.expectedVersion(ifMatch);
        return change(
                call,
                request,
                body,
                live -> call.service().save(live, key, JsonText.object(body), expected));
    }

    @PostMapping("/{key}/{name}")
    ResponseEntity<String> call(
            @PathVariable String service,
            @PathVariable int version,
            @PathVariable String resource,
            @PathVariable String key,
            @PathVariable String name,
            @RequestHeader(name = HttpHeaders.IF_MATCH, required = false) @Nullable String ifMatch,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request)
            throws IOException {
        var call = new Call(engine, actor, service, version, resource);
        var expected = Preconditions.expectedVersion(ifMatch);
        var body = JsonText.bytes(request.getInputStream());
        return change(
                call,
                request,
                body,
                live -> call.service().call(live, key, name, arguments(body), expected));
    }

    /** Nothing at all is the same as no arguments. */
    private static Map<String, @Nullable Object> arguments(byte[] body) {
        return body.length == 0 ? Map.of() : JsonText.object(body);
    }

    @DeleteMapping("/{key}")
    ResponseEntity<String> remove(
            @PathVariable String service,
            @PathVariable int version,
            @PathVariable String resource,
            @PathVariable String key,
            @RequestHeader(name = HttpHeaders.IF_MATCH, required = false) @Nullable String ifMatch,
            @AuthenticationPrincipal Actor actor) {
        var call = new Call(engine, actor, service, version, resource);
        var expected = Preconditions.expectedVersion(ifMatch);
        var outcome =
                engine.records()
                        .write(live ->
                                call.service()
                                        .request(
                                                live,
                                                call.service().remove(live, key, expected),
                                                false,
                                                null));
        return outcome instanceof Outcome.Refused refused
                ? problem(refused)
                : ResponseEntity.noContent().build();
    }

    private ResponseEntity<String> change(
            Call call,
            HttpServletRequest http,
            byte[] body,
            Function<LiveRelease, RecordCommand> command) {
        var once = once(call, http, body);
        boolean traced = Traced.isAsked(http);
        var outcome =
                engine.records()
                        .write(live ->
                                call.service().request(live, command.apply(live), traced, once));
        return switch (outcome) {
            case Outcome.Refused refused -> problem(refused);
            case Outcome.Repeated(var answer) -> Answer.read(answer).entity(true);
            case Outcome.Success done ->
                    Traced.with(
                            done,
                            engine.records()
                                    .read((live, session) ->
                                            call.answer(live, session, done).entity(false)));
        };
    }

    private Request.@Nullable Once once(Call call, HttpServletRequest http, byte[] body) {
        var key = IdempotencyKey.of(http);
        if (key == null) {
            return null;
        }
        var asked =
                "%s %s\n%s"
                        .formatted(
                                http.getMethod(),
                                http.getRequestURI(),
                                new String(body, StandardCharsets.UTF_8));
        return new Request.Once(
                key,
                Secrets.hash(asked),
                (session, done) -> call.answer(engine.live(), session, done).write());
    }

    private static ResponseEntity<String> problem(Outcome.Refused refused) {
        var problem = Problem.of(refused);
        CallNotes.failed(problem.status(), problem.said());
        return Traced.with(
                refused.trace(),
                List.of(),
                ResponseEntity.status(problem.status())
                        .header(HttpHeaders.CONTENT_TYPE, Problem.CONTENT_TYPE)
                        .body(JsonText.write(problem.plain())));
    }
}
