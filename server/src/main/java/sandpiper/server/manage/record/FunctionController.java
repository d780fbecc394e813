package sandpiper.server.manage.record;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
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
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.release.LiveRelease;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.release.FunctionDefinition;
import sandpiper.model.release.ObjectType;
import sandpiper.server.json.JsonText;
import sandpiper.server.manage.Ways;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.service.Traced;

/** Calls of functions by people: on a record, on many, on no record. */
@RestController
@RequestMapping("/manage/v1/functions/{object}/{function}")
public class FunctionController {
    private static final int MOST_RECORDS = 1_000;

    private final Engine engine;

    FunctionController(Engine engine) {
        this.engine = engine;
    }

    /**
     * What is called with.
     *
     * @param key of the record, or {@code null} for a function of the object as a whole
     * @param arguments by the names of the parameters; none when {@code null}
     */
    record FunctionCall(@Nullable String key, @Nullable Map<String, @Nullable Object> arguments) {}

    /** The records it is called on, one after the other, each for itself. */
    record FunctionCallEach(
            @NotNull List<String> keys, @Nullable Map<String, @Nullable Object> arguments) {}

    /** What came of the call on one record. */
    record CallResult(
            String key,
            boolean done,
            @Nullable Object result,
            List<String> warnings,
            @Nullable String problem) {}

    /** What came of a call on many records. */
    record CallResults(long done, long failed, List<CallResult> results) {}

    @Operation(summary = "Call a function")
    @PostMapping
    ResponseEntity<String> call(
            @PathVariable String object,
            @PathVariable String function,
            @Valid @RequestBody FunctionCall call,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest http) {
        boolean traced = Traced.isAsked(http);
        var outcome =
                engine.records()
                        .write(live ->
                                request(
                                        live,
                                        actor,
                                        object,
                                        function,
                                        call.key(),
                                        call.arguments(),
                                        Ways.of(http),
                                        traced));
        return switch (outcome) {
            case Outcome.Success done -> {
                var result = done.result();
                var body = new LinkedHashMap<String, @Nullable Object>();
                body.put("returns", result != null);
                body.put("result", result == null ? null : result.value());
                body.put("warnings", Problem.messages(done.warnings()));
                yield Traced.with(
                        done,
                        ResponseEntity.ok()
                                .header(HttpHeaders.CONTENT_TYPE, MediaType.APPLICATION_JSON_VALUE)
                                .body(JsonText.write(body)));
            }
            case Outcome.Refused refused -> {
                var problem = Problem.of(refused);
                yield Traced.with(
                        refused.trace(),
                        List.of(),
                        ResponseEntity.status(problem.status())
                                .header(HttpHeaders.CONTENT_TYPE, Problem.CONTENT_TYPE)
                                .body(JsonText.write(problem.plain())));
            }
            case Outcome.Repeated _ ->
                    throw new IllegalStateException("Nothing here is asked for only once");
        };
    }

    /** On many records; each is done or refused for itself. */
    @Operation(summary = "On many records")
    @PostMapping("/each")
    CallResults each(
            @PathVariable String object,
            @PathVariable String function,
            @Valid @RequestBody FunctionCallEach call,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest http) {
        if (call.keys().size() > MOST_RECORDS) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "A function is called on at most %,d records at once.".formatted(MOST_RECORDS));
        }
        var via = Ways.of(http);
        var requests = new ArrayList<Function<LiveRelease, Request>>();
        for (var key : call.keys()) {
            requests.add(live ->
                    request(live, actor, object, function, key, call.arguments(), via, false));
        }
        var outcomes = engine.records().write(requests, Grouping.EACH);
        var results = new ArrayList<CallResult>();
        for (int i = 0; i < outcomes.size(); i++) {
            results.add(result(call.keys().get(i), outcomes.get(i)));
        }
        long done = results.stream().filter(CallResult::done).count();
        return new CallResults(done, results.size() - done, results);
    }

    private static CallResult result(String key, Outcome outcome) {
        return switch (outcome) {
            case Outcome.Success done -> {
                var result = done.result();
                yield new CallResult(
                        key,
                        true,
                        result == null ? null : result.value(),
                        Problem.messages(done.warnings()),
                        null);
            }
            case Outcome.Refused refused ->
                    new CallResult(
                            key,
                            false,
                            null,
                            List.of(),
                            String.join(" ", Problem.messages(refused.faults())));
            case Outcome.Repeated _ -> new CallResult(key, true, null, List.of(), null);
        };
    }

    private static Request request(
            LiveRelease live,
            Actor actor,
            String objectName,
            String functionName,
            @Nullable String key,
            @Nullable Map<String, @Nullable Object> arguments,
            String via,
            boolean traced) {
        var object = object(live, objectName);
        var function = function(object, functionName);
        if (function.onRecord() != (key != null)) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    function.onRecord()
                            ? "%s is called on a record; say which by its key."
                                    .formatted(functionName)
                            : "%s is called on the object as a whole; leave out the key."
                                    .formatted(functionName));
        }
        var access = RecordAccess.of(actor, live, object).require(Action.EDIT);
        return access.request(
                new RecordCommand.Call(
                        object,
                        key,
                        functionName,
                        arguments == null ? Map.of() : PlainJson.of(arguments),
                        null),
                via,
                traced);
    }

    static ObjectType object(LiveRelease live, String name) {
        return live.release()
                .find(name)
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND,
                                "There is no object %s.".formatted(Quoted.of(name))));
    }

    private static FunctionDefinition function(ObjectType object, String name) {
        var names =
                object.functions().stream()
                        .filter(FunctionDefinition::external)
                        .map(FunctionDefinition::name)
                        .toList();
        return object.function(name)
                .filter(FunctionDefinition::external)
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND,
                                "%s has no function %s that can be called from outside.%s"
                                        .formatted(
                                                object.name(),
                                                Quoted.of(name),
                                                Nearest.to(name, names)
                                                        .map(near -> " Did you mean " + near + "?")
                                                        .orElse(
                                                                names.isEmpty()
                                                                        ? ""
                                                                        : " It has "
                                                                                + String.join(
                                                                                        ", ", names)
                                                                                + "."))));
    }
}
