package sandpiper.server.manage.record;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
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
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.Session;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.release.LiveRelease;
import sandpiper.logic.Quoted;
import sandpiper.model.release.ObjectType;
import sandpiper.server.json.JsonReader;
import sandpiper.server.json.JsonText;
import sandpiper.server.manage.Ways;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.service.Confirmed;
import sandpiper.server.service.Cursors;
import sandpiper.server.service.Preconditions;
import sandpiper.server.service.QueryParameters;
import sandpiper.server.service.Traced;

/**
 * Records of any object, with all their fields, for console and command line. Values may come as
 * text whatever their type.
 */
@RestController
@RequestMapping("/manage/v1/records/{object}")
public class RecordController {
    private static final List<String> PARAMETERS =
            List.of("filter", "search", "sort", "limit", "after", "count", "retired");
    private static final int HISTORY = 200;
    private static final int MOST_ITEMS = 1_000;

    private final Engine engine;
    private final JsonReader json;
    private final Cursors cursors;

    RecordController(Engine engine, Cursors cursors, JsonReader json) {
        this.engine = engine;
        this.cursors = cursors;
        this.json = json;
    }

    private static ObjectType object(LiveRelease live, String name) {
        return RecordQueries.object(live, name);
    }

    @Operation(summary = "Find records")
    @GetMapping
    ResponseEntity<String> find(
            @PathVariable String object,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request) {
        var reader = new QueryParameters(request.getParameterMap(), PARAMETERS);
        return engine.records()
                .read((live, session) -> {
                    var type = object(live, object);
                    var access = RecordAccess.of(actor, live, type).require(Action.VIEW);
                    var fingerprint =
                            "manage/"
                                    + object
                                    + "?"
                                    + reader.text("filter")
                                    + "&"
                                    + reader.text("sort")
                                    + "&"
                                    + reader.text("search")
                                    + "&"
                                    + reader.text("retired");
                    var page =
                            engine.records()
                                    .page(
                                            live,
                                            session,
                                            RecordQueries.of(
                                                    engine,
                                                    access,
                                                    reader,
                                                    cursors.read(
                                                            fingerprint, reader.text("after"))));
                    var body = new LinkedHashMap<String, @Nullable Object>();
                    body.put(
                            "records",
                            page.records().stream()
                                    .map(record -> RecordJson.of(access, record))
                                    .toList());
                    body.put(
                            "next",
                            page.next() == null ? null : cursors.write(fingerprint, page.next()));
                    body.put("total", page.total());
                    return json(HttpStatus.OK, body);
                });
    }

    @Operation(summary = "Show a record")
    @GetMapping("/{key}")
    ResponseEntity<String> show(
            @PathVariable String object,
            @PathVariable String key,
            @AuthenticationPrincipal Actor actor) {
        return engine.records()
                .read((live, session) -> {
                    var access = RecordAccess.of(actor, live, object(live, object));
                    var record = find(access, session, key);
                    return json(HttpStatus.OK, RecordJson.of(access, record));
                });
    }

    private RecordView find(RecordAccess access, Session session, String key) {
        return engine.records()
                .find(
                        access.live(),
                        session,
                        access.type(),
                        key,
                        access.seen(),
                        access.scope(Action.VIEW))
                .orElseThrow(() -> missing(access.type(), key));
    }

    private static ProblemException missing(ObjectType type, String key) {
        return new ProblemException(
                HttpStatus.NOT_FOUND, "There is no %s %s.".formatted(type.label(), Quoted.of(key)));
    }

    @Operation(summary = "The history of a record")
    @GetMapping("/{key}/history")
    ResponseEntity<String> history(
            @PathVariable String object,
            @PathVariable String key,
            @AuthenticationPrincipal Actor actor) {
        return engine.records()
                .read((live, session) -> {
                    var access = RecordAccess.of(actor, live, object(live, object));
                    var record = find(access, session, key);
                    var entries =
                            engine.records().history(live, session, access.type(), record, HISTORY);
                    return json(
                            HttpStatus.OK,
                            Map.of(
                                    "entries",
                                    entries.stream()
                                            .map(entry -> RecordJson.of(access, entry))
                                            .toList()));
                });
    }

    @Operation(summary = "Create a record")
    @PostMapping(consumes = MediaType.APPLICATION_JSON_VALUE)
    ResponseEntity<String> create(
            @PathVariable String object,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request)
            throws IOException {
        var values = json.object(json.bytes(request.getInputStream()));
        return change(
                actor,
                object,
                request,
                access -> new RecordCommand.Create(access.type(), access.givable(), values));
    }

    @Operation(summary = "Change a record")
    @PatchMapping(path = "/{key}", consumes = MediaType.APPLICATION_JSON_VALUE)
    ResponseEntity<String> update(
            @PathVariable String object,
            @PathVariable String key,
            @RequestHeader(name = HttpHeaders.IF_MATCH, required = false) @Nullable String ifMatch,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request)
            throws IOException {
        var values = json.object(json.bytes(request.getInputStream()));
        var expected = Preconditions.expected(ifMatch, null);
        return change(
                actor,
                object,
                request,
                access ->
                        new RecordCommand.Change(
                                access.type(), access.writable(), key, values, expected));
    }

    @Operation(summary = "Retire or delete a record")
    @DeleteMapping("/{key}")
    ResponseEntity<String> remove(
            @PathVariable String object,
            @PathVariable String key,
            @RequestHeader(name = HttpHeaders.IF_MATCH, required = false) @Nullable String ifMatch,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request) {
        var expected = Preconditions.expected(ifMatch, null);
        return change(
                actor,
                object,
                request,
                access -> new RecordCommand.Remove(access.type(), key, expected));
    }

    @Operation(summary = "Restore a retired record")
    @PostMapping("/{key}/restore")
    ResponseEntity<String> restore(
            @PathVariable String object,
            @PathVariable String key,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request) {
        return change(
                actor, object, request, access -> new RecordCommand.Restore(access.type(), key));
    }

    @Operation(summary = "Take a transition")
    @PostMapping("/{key}/transitions/{transition}")
    ResponseEntity<String> transit(
            @PathVariable String object,
            @PathVariable String key,
            @PathVariable String transition,
            @RequestHeader(name = HttpHeaders.IF_MATCH, required = false) @Nullable String ifMatch,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request) {
        var expected = Preconditions.expected(ifMatch, null);
        return change(
                actor,
                object,
                request,
                access -> new RecordCommand.Transit(access.type(), key, transition, expected));
    }

    private ResponseEntity<String> change(
            Actor actor,
            String object,
            HttpServletRequest http,
            Function<RecordAccess, RecordCommand> command) {
        boolean traced = Traced.isAsked(http);
        var leave = Confirmed.of(http);
        var via = Ways.of(http);
        var answered =
                engine.records()
                        .write(
                                live -> {
                                    var access = RecordAccess.of(actor, live, object(live, object));
                                    return access.request(command.apply(access), via, traced)
                                            .with(leave);
                                },
                                (live, session, done) ->
                                        answer(actor, live, session, (Outcome.Done) done));
        return switch (answered.outcome()) {
            case Outcome.Done done ->
                    Traced.with(
                            done.trace(),
                            done.warnings(),
                            Objects.requireNonNull(answered.answer()));
            case Outcome.Refused refused -> {
                var problem = Problem.of(refused);
                yield Traced.with(
                        refused.trace(),
                        List.of(),
                        ResponseEntity.status(problem.status())
                                .header(HttpHeaders.CONTENT_TYPE, Problem.CONTENT_TYPE)
                                .body(JsonText.write(problem.plain())));
            }
            case Outcome.Repeated _, Outcome.Returned _ ->
                    throw new IllegalStateException(
                            "Nothing here is asked for only once, or is about no record");
        };
    }

    /** The record as it is then, to those who see it. */
    private ResponseEntity<String> answer(
            Actor actor, LiveRelease live, Session session, Outcome.Done done) {
        var type = object(live, done.object().name());
        var access = RecordAccess.of(actor, live, type);
        var record = engine.records().view(live, session, type, done.number(), access.seen());
        boolean seen =
                access.rights().may(Action.VIEW)
                        && engine.records()
                                .isWithin(
                                        live,
                                        session,
                                        type,
                                        done.number(),
                                        access.scope(Action.VIEW));
        return record.isEmpty() || !seen
                ? ResponseEntity.noContent().build()
                : json(
                        done.created() ? HttpStatus.CREATED : HttpStatus.OK,
                        RecordJson.of(access, record.get()));
    }

    /**
     * Many records at once, created or changed by key; each for itself. With {@code trial} it is
     * told what would come of it, and nothing is kept.
     */
    @Operation(summary = "Many records at once, created or changed by key")
    @PostMapping(path = "/batch", consumes = MediaType.APPLICATION_JSON_VALUE)
    ResponseEntity<String> batch(
            @PathVariable String object,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request)
            throws IOException {
        var body = json.object(json.bytes(request.getInputStream()));
        if (!(body.get("items") instanceof List<?> items) || items.size() > MOST_ITEMS) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "items must be a list of at most %,d records.".formatted(MOST_ITEMS));
        }
        boolean whole = Boolean.TRUE.equals(body.get("whole"));
        if (whole && !actor.has(Duty.OPERATE)) {
            throw new ProblemException(
                    HttpStatus.FORBIDDEN,
                    "States, numbers and read-only fields are taken over only from somebody with"
                            + " the duty operate.");
        }
        var requests = new ArrayList<Function<LiveRelease, Request>>();
        for (var item : items) {
            requests.add(live ->
                    saving(RecordAccess.of(actor, live, object(live, object)), item)
                            .with(new Leave(whole, false)));
        }
        boolean trial = Boolean.TRUE.equals(body.get("trial"));
        var results =
                (trial
                                ? engine.records().tryTogether(requests)
                                : engine.records().write(requests, Grouping.TOGETHER))
                        .stream().map(RecordController::result).toList();
        return json(HttpStatus.OK, Map.of("results", results));
    }

    private static Request saving(RecordAccess access, @Nullable Object item) {
        var values = new LinkedHashMap<String, @Nullable Object>();
        if (item instanceof Map<?, ?> map) {
            map.forEach((name, value) -> values.put(String.valueOf(name), value));
        }
        var type = access.type();
        var command =
                type.key().isEmpty()
                        ? new RecordCommand.Create(type, access.givable(), values)
                        : new RecordCommand.Save(
                                type,
                                access.givable(),
                                access.writable(),
                                null,
                                values,
                                Map.of(),
                                false,
                                null);
        return access.request(command, "import", false);
    }

    private static Map<String, Object> result(Outcome outcome) {
        var result = new LinkedHashMap<String, Object>();
        switch (outcome) {
            case Outcome.Done done -> {
                result.put("status", done.created() ? "created" : "changed");
                result.put("id", done.id().toString());
            }
            case Outcome.Refused refused -> {
                result.put("status", "refused");
                result.put("problem", Problem.of(refused).plain());
            }
            case Outcome.Repeated _, Outcome.Returned _ -> result.put("status", "changed");
        }
        return result;
    }

    private static ResponseEntity<String> json(HttpStatus status, Object body) {
        return ResponseEntity.status(status)
                .header(HttpHeaders.CONTENT_TYPE, MediaType.APPLICATION_JSON_VALUE)
                .body(JsonText.write(body));
    }
}
