package sandpiper.server.odata;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.server.api.ODataResponse;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.command.Outcome;
import sandpiper.server.json.JsonText;
import sandpiper.server.odata.request.Format;
import sandpiper.server.odata.request.Refusals;
import sandpiper.server.problem.Problem;
import sandpiper.server.service.Changed;
import sandpiper.server.service.IdempotencyKey;
import sandpiper.server.service.Performed;
import sandpiper.server.service.Preconditions;
import sandpiper.server.service.StoredReply;
import sandpiper.server.service.Traced;
import sandpiper.server.service.Writes;

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
            asked(change).require();
            gathered.add(change);
            ODataResponses.empty(response, HttpStatus.NO_CONTENT);
            if (change.made() != null) {
                // By which those behind it mean what it makes.
                response.setHeader(HttpHeader.LOCATION, exchange.root() + "/" + change.made());
            }
            return;
        }
        answer(change, Writes.perform(asked(change)), response);
    }

    /** Carries out all or none; one for each, or the last is why nothing was done. */
    List<Performed<StoredReply>> together(List<Change> changes) {
        return Writes.together(exchange.engine(), changes.stream().map(this::asked).toList());
    }

    private Writes.Asked<StoredReply> asked(Change change) {
        StoredReply.Form form = changed -> answer(change, changed);
        return new Writes.Asked<>(
                change.call(), change.command(), change.traced(), change.once(), form);
    }

    void answer(Change change, Performed<StoredReply> performed, ODataResponse response) {
        switch (performed) {
            case Performed.Refused<StoredReply>(var refused) -> {
                var set = change.set();
                failures.write(
                        response,
                        Problem.of(refused),
                        set == null ? null : exchange.model().shape(set));
                said(response, Traced.headers(refused.trace(), List.of()));
            }
            case Performed.Done<StoredReply>(var done, var answer) -> {
                fill(change, response, answer);
                said(response, Traced.headers(done.trace(), done.warnings()));
            }
            case Performed.Again<StoredReply>(var answer) -> {
                fill(change, response, answer);
                response.setHeader(StoredReply.REPLAYED, "true");
            }
        }
    }

    private static void said(ODataResponse response, Map<String, String> headers) {
        headers.forEach(response::setHeader);
    }

    /** What a change is answered with, in a form that can be kept. */
    private StoredReply answer(Change change, Changed changed) {
        var answered = change.answered();
        if (answered == null) {
            return nothing();
        }
        var result = changed.result();
        return result != null
                ? result(answered, changed, result)
                : changed.record()
                        .map(done -> record(change, answered, changed, done))
                        .orElseGet(ChangeRun::nothing);
    }

    private static StoredReply nothing() {
        return new StoredReply(HttpStatus.NO_CONTENT.value(), null, null, "");
    }

    /** What an action or function gave back. */
    private StoredReply result(Change.Answered answered, Changed changed, Outcome.Result result) {
        var tag = changed.record().map(done -> Preconditions.tag(done.version())).orElse(null);
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
            Change change, Change.Answered answered, Changed changed, Outcome.Done done) {
        var set = Objects.requireNonNull(change.set());
        var available = changed.tree(done);
        var shape = exchange.model().shape(set);
        var wanted =
                Projection.of(
                                shape,
                                available,
                                answered.uri().getSelectOption(),
                                answered.uri().getExpandOption())
                        .withItems(answered.items(), available);
        var tree = wanted.tree(available);
        var view = changed.view(done, tree);
        var format = Format.of(answered.type());
        var writer = new EntityWriter(set, format, wanted, tree);
        var address = exchange.root() + "/" + writer.address(view);
        var status = done.created() ? HttpStatus.CREATED : HttpStatus.OK;
        return new StoredReply(
                (answered.brief() ? HttpStatus.NO_CONTENT : status).value(),
                done.created() || answered.brief() ? address : null,
                Preconditions.tag(view.version()),
                answered.brief()
                        ? ""
                        : new String(
                                exchange.entity(
                                        writer,
                                        view,
                                        format,
                                        set + wanted.contextList() + "/$entity"),
                                StandardCharsets.UTF_8));
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
}
