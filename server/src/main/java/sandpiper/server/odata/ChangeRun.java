package sandpiper.server.odata;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.server.api.ODataResponse;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.Records;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.Session;
import sandpiper.engine.release.LiveRelease;
import sandpiper.server.json.JsonText;
import sandpiper.server.problem.Problem;
import sandpiper.server.service.IdempotencyKey;
import sandpiper.server.service.Preconditions;
import sandpiper.server.service.StoredReply;
import sandpiper.server.service.Traced;

/**
 * Carries changes out: each at once, or those of a change set together when all of them have been
 * read.
 */
public final class ChangeRun {
    private final ODataContext exchange;
    private final ODataErrors failures;
    private @Nullable List<Change> gathered;

    ODataContext exchange() {
        return exchange;
    }

    ChangeRun(ODataContext exchange, ODataErrors failures) {
        this.exchange = exchange;
        this.failures = failures;
    }

    /** From now on changes are only gathered. */
    void gather() {
        gathered = new ArrayList<>();
    }

    /** What was gathered; changes are carried out at once again. */
    List<Change> gathered() {
        var all = gathered == null ? List.<Change>of() : List.copyOf(gathered);
        gathered = null;
        return all;
    }

    void take(Change change, ODataResponse response) {
        if (gathered != null) {
            if (change.once() != null) {
                throw Refusals.bad(
                        "Inside of what is done as a whole, %s is not offered."
                                .formatted(IdempotencyKey.HEADER));
            }
            // What is not granted or not offered is told to the request that asks for it.
            request(change, exchange.engine().live());
            gathered.add(change);
            ODataResponses.empty(response, HttpStatus.NO_CONTENT);
            return;
        }
        var answered =
                exchange.engine()
                        .records()
                        .write(
                                live -> request(change, live),
                                (live, session, done) -> answer(change, live, session, done));
        answer(change, answered.outcome(), answered.answer(), response);
    }

    /** Carries out all or none; one outcome for each, or the last is why nothing was done. */
    List<Records.Answered<StoredReply>> together(List<Change> changes) {
        var makers = new ArrayList<Function<LiveRelease, Request>>();
        changes.forEach(change -> makers.add(live -> request(change, live)));
        var answers = new HashMap<Integer, StoredReply>();
        var outcomes =
                exchange.engine()
                        .records()
                        .write(
                                makers,
                                Grouping.ALL_OR_NONE,
                                (place, live, session, done) ->
                                        answers.put(
                                                place,
                                                answer(changes.get(place), live, session, done)));
        var answered = new ArrayList<Records.Answered<StoredReply>>();
        for (int i = 0; i < outcomes.size(); i++) {
            answered.add(new Records.Answered<>(outcomes.get(i), answers.get(i)));
        }
        return answered;
    }

    void answer(
            Change change, Outcome outcome, @Nullable StoredReply made, ODataResponse response) {
        switch (outcome) {
            case Outcome.Refused refused -> {
                var set = change.set();
                failures.write(
                        response,
                        Problem.of(refused),
                        set == null ? null : exchange.model().shape(set));
                said(response, Traced.headers(refused.trace(), List.of()));
            }
            case Outcome.Success done -> {
                fill(change, response, Objects.requireNonNull(made));
                said(response, Traced.headers(done.trace(), done.warnings()));
            }
            case Outcome.Repeated(var text) -> {
                fill(change, response, StoredReply.read(text));
                response.setHeader(StoredReply.REPLAYED, "true");
            }
        }
    }

    private static void said(ODataResponse response, Map<String, String> headers) {
        headers.forEach(response::setHeader);
    }

    /** What a change is answered with, in a form that can be kept. */
    private StoredReply answer(
            Change change, LiveRelease live, Session session, Outcome.Success success) {
        var answered = change.answered();
        if (answered == null) {
            return new StoredReply(HttpStatus.NO_CONTENT.value(), null, null, "");
        }
        var result = success.result();
        if (result != null) {
            return result(answered, success, result);
        }
        return success instanceof Outcome.Done done
                ? record(change, answered, live, session, done)
                : new StoredReply(HttpStatus.NO_CONTENT.value(), null, null, "");
    }

    /** What an action or function gave back. */
    private StoredReply result(
            Change.Answered answered, Outcome.Success success, Outcome.Result result) {
        var tag = success instanceof Outcome.Done done ? Preconditions.tag(done.version()) : null;
        var value = Format.of(answered.type()).value(result.value());
        if (value == null || answered.brief()) {
            return new StoredReply(HttpStatus.NO_CONTENT.value(), null, tag, "");
        }
        var name = ActionArguments.name(answered.uri().getUriResourceParts().getLast());
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put(
                "@odata.context",
                "%s/$metadata#%s".formatted(exchange.root(), exchange.model().returned(name)));
        if (value instanceof Map<?, ?> members) {
            members.forEach((member, one) -> body.put(String.valueOf(member), one));
        } else {
            body.put("value", value);
        }
        return new StoredReply(HttpStatus.OK.value(), null, tag, JsonText.write(body));
    }

    private StoredReply record(
            Change change,
            Change.Answered answered,
            LiveRelease live,
            Session session,
            Outcome.Done done) {
        var set = Objects.requireNonNull(change.set());
        var available = change.call().answerTree(live, session, done);
        var shape = exchange.model().shape(set);
        var wanted =
                Projection.of(
                                shape,
                                available,
                                answered.uri().getSelectOption(),
                                answered.uri().getExpandOption())
                        .withItems(answered.items(), available);
        var tree = wanted.tree(available);
        var view = change.call().changed(live, session, done, tree);
        var writer = new EntityWriter(exchange.root(), Format.of(answered.type()));
        var address = exchange.root() + "/" + writer.address(set, shape, tree, view);
        var status = done.created() ? HttpStatus.CREATED : HttpStatus.OK;
        return new StoredReply(
                (answered.brief() ? HttpStatus.NO_CONTENT : status).value(),
                done.created() || answered.brief() ? address : null,
                Preconditions.tag(view.version()),
                answered.brief()
                        ? ""
                        : JsonText.write(
                                writer.with(
                                        set + wanted.contextList() + "/$entity",
                                        writer.record(set, wanted, tree, view))));
    }

    private static void fill(Change change, ODataResponse response, StoredReply answer) {
        ODataResponses.empty(response, HttpStatus.valueOf(answer.status()));
        var tag = answer.tag();
        if (tag != null) {
            response.setHeader(HttpHeader.ETAG, tag);
        }
        var location = answer.location();
        var answered = change.answered();
        boolean brief = answered != null && answered.brief();
        if (location != null) {
            response.setHeader(brief ? HttpHeader.ODATA_ENTITY_ID : HttpHeader.LOCATION, location);
        }
        if (brief) {
            response.setHeader(HttpHeader.PREFERENCE_APPLIED, "return=minimal");
        }
        if (answered != null && !answer.body().isEmpty()) {
            ODataResponses.text(
                    response, HttpStatus.valueOf(answer.status()), answered.type(), answer.body());
        }
    }

    /** The request with which a change is carried out. */
    private Request request(Change change, LiveRelease live) {
        var once = change.once();
        return change.call()
                .request(
                        live,
                        change.command().apply(live),
                        change.traced(),
                        once == null
                                ? null
                                : new Request.Once(
                                        once.key(),
                                        once.fingerprint(),
                                        (session, done) ->
                                                answer(
                                                                change,
                                                                exchange.engine().live(),
                                                                session,
                                                                done)
                                                        .write()));
    }
}
