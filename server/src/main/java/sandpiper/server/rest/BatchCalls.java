package sandpiper.server.rest;

import static java.util.Objects.requireNonNull;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Expected;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.release.LiveRelease;
import sandpiper.server.json.JsonReader;
import sandpiper.server.json.JsonText;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.RateLimits;
import sandpiper.server.service.RecordWriters;
import sandpiper.server.service.ServiceCall;

/** Many changes in one request, each done or refused for itself. */
@Component
class BatchCalls {
    private static final int MOST_ITEMS = 1_000;

    private static final Logger LOG = LoggerFactory.getLogger(BatchCalls.class);

    private final Engine engine;
    private final RecordWriters writers;
    private final JsonReader json;

    private final RateLimits limits;

    BatchCalls(Engine engine, RecordWriters writers, RateLimits limits, JsonReader json) {
        this.engine = engine;
        this.limits = limits;
        this.writers = writers;
        this.json = json;
    }

    HttpReply batch(RestPlace place, Actor actor, HttpServletRequest request) throws IOException {
        var call = Call.changing(engine, writers, actor, place, request);
        var body = json.object(json.bytes(request.getInputStream()));
        if (!(body.get("items") instanceof List<?> items) || body.size() != 1) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "The body must be {\"items\": [...]}, each item as in {\"do\": \"create\","
                            + " \"values\": {...}}.");
        }
        if (items.size() > MOST_ITEMS) {
            throw new ProblemException(
                    HttpStatus.CONTENT_TOO_LARGE,
                    "A batch may have %,d items, but has %,d.".formatted(MOST_ITEMS, items.size()));
        }
        limits.countRest(actor, items.size());
        var requests = new ArrayList<Function<LiveRelease, Request>>();
        for (int i = 0; i < items.size(); i++) {
            var command = command(call, BatchItem.of(items.get(i), i));
            requests.add(live -> call.service().request(live, command.apply(live), false, null));
        }
        // Found out before anything is done: whether each item may be asked at all.
        var live = engine.live();
        var asked = requests.stream().map(maker -> maker.apply(live)).toList();
        LOG.debug("{}: a batch of {}", call.service().via(), asked.size());
        return results(call.service(), engine.records().write(requests, Grouping.TOGETHER));
    }

    private static Function<LiveRelease, RecordCommand> command(Call call, BatchItem item) {
        return live ->
                switch (item.verb()) {
                    case CREATE -> call.service().create(live, item.values());
                    case UPDATE ->
                            call.service()
                                    .change(
                                            live,
                                            requireNonNull(item.key()),
                                            item.values(),
                                            Expected.version(item.version()));
                    case SAVE ->
                            call.service()
                                    .save(
                                            live,
                                            item.key(),
                                            item.values(),
                                            false,
                                            Expected.version(item.version()));
                    case CALL ->
                            call.service()
                                    .call(
                                            live,
                                            requireNonNull(item.key()),
                                            requireNonNull(item.call()),
                                            item.values(),
                                            Expected.version(item.version()));
                };
    }

    private HttpReply results(ServiceCall call, List<Outcome> outcomes) {
        var results =
                engine.records()
                        .read((live, session) ->
                                outcomes.stream()
                                        .map(outcome ->
                                                switch (outcome) {
                                                    case Outcome.Done done -> {
                                                        var answer =
                                                                new LinkedHashMap<String, Object>();
                                                        answer.put(
                                                                "status",
                                                                done.created() ? 201L : 200L);
                                                        answer.put("id", done.id().toString());
                                                        answer.put("version", done.version());
                                                        engine.records()
                                                                .keyOf(
                                                                        live,
                                                                        session,
                                                                        done.object(),
                                                                        done.number())
                                                                .ifPresent(key ->
                                                                        answer.put("key", key));
                                                        var result = done.result();
                                                        if (result != null
                                                                && result.value() != null) {
                                                            answer.put(
                                                                    "result",
                                                                    call.narrowed(
                                                                            live,
                                                                            result.called(),
                                                                            result.value()));
                                                        }
                                                        yield (Map<String, Object>) answer;
                                                    }
                                                    case Outcome.Refused refused ->
                                                            refusal(refused);
                                                    case Outcome.Repeated _, Outcome.Returned _ ->
                                                            new LinkedHashMap<String, Object>(
                                                                    Map.of("status", 200L));
                                                })
                                        .toList());
        var body = new LinkedHashMap<String, Object>();
        long done = outcomes.stream().filter(Outcome.Done.class::isInstance).count();
        body.put("done", done);
        body.put("failed", outcomes.size() - done);
        body.put("results", results);
        return HttpReply.json(JsonText.bytes(to -> JsonText.write(to, body)));
    }

    private static Map<String, Object> refusal(Outcome.Refused refused) {
        var problem = Problem.of(refused);
        var answer = new LinkedHashMap<String, Object>();
        answer.put("status", (long) problem.status());
        answer.put("problem", problem.plain());
        return answer;
    }
}
