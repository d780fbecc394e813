package sandpiper.server.manage.record;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Preview;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.record.Query;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.Tracer;
import sandpiper.logic.Quoted;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.server.json.JsonText;
import sandpiper.server.problem.ProblemException;

/**
 * Tries things on records without keeping anything: unsaved forms, what they offer, transitions.
 */
@RestController
@RequestMapping("/manage/v1/trials")
public class TrialController {
    /** Records in a pick list before one types. */
    private static final int PICKED = 20;

    private final Engine engine;

    TrialController(Engine engine) {
        this.engine = engine;
    }

    /** A fault or warning; {@code path} as in {@code charges.0.tariff}. */
    record Wrong(String path, String code, String message) {
        static List<Wrong> of(List<Fault> faults) {
            return faults.stream()
                    .map(fault ->
                            new Wrong(fault.path().toString(), fault.code().id(), fault.message()))
                    .toList();
        }
    }

    /** How a form shows a field. */
    record FieldFlagsView(boolean required, boolean readOnly, boolean hidden) {}

    /** What an unsaved record would be. */
    record RecordPreview(
            Map<String, @Nullable Object> values,
            Map<String, FieldFlagsView> fields,
            List<Wrong> faults,
            List<Wrong> warnings) {
        static RecordPreview of(Preview preview) {
            var flags = new LinkedHashMap<String, FieldFlagsView>();
            preview.fields()
                    .forEach((name, one) ->
                            flags.put(
                                    name,
                                    new FieldFlagsView(
                                            one.required(), one.readOnly(), one.hidden())));
            return new RecordPreview(
                    preview.values(),
                    flags,
                    Wrong.of(preview.faults()),
                    Wrong.of(preview.warnings()));
        }

        RecordPreview without(Set<String> hidden) {
            if (hidden.isEmpty()) {
                return this;
            }
            var seen = new LinkedHashMap<>(values);
            seen.keySet().removeAll(hidden);
            var flags = new LinkedHashMap<>(fields);
            flags.keySet().removeAll(hidden);
            return new RecordPreview(seen, flags, faults, warnings);
        }
    }

    /** An unsaved record; with a key, changes of a stored one. */
    record Form(@Nullable String key, @NotNull Map<String, @Nullable Object> values) {}

    /** A transition, and why it cannot be taken now; no reasons mean it can. */
    record TransitionState(String name, String label, String to, List<Wrong> reasons) {}

    private static ObjectType object(LiveRelease live, String name) {
        return live.release()
                .find(name)
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND, "There is no object %s.".formatted(name)));
    }

    static Function<LiveRelease, Request> request(
            String object,
            @Nullable String key,
            Map<String, @Nullable Object> values,
            Actor actor) {
        return live -> {
            var access = RecordAccess.of(actor, live, object(live, object));
            var type = access.type();
            var command =
                    key == null || key.isBlank()
                            ? new RecordCommand.Create(type, access.givable(), values)
                            : new RecordCommand.Change(type, access.writable(), key, values, null);
            return access.request(command, "trial", false);
        };
    }

    /** What an unsaved record would be: totals, required marks, messages. */
    @Operation(summary = "What an unsaved record would be")
    @PostMapping("/records/{object}")
    RecordPreview preview(
            @PathVariable String object,
            @Valid @RequestBody Form form,
            @AuthenticationPrincipal Actor actor) {
        requireSeen(object, form.key(), actor);
        var hidden =
                actor.on(object).may(Action.VIEW)
                        ? actor.on(object).hidden()
                        : notSent(object, form.values().keySet());
        return RecordPreview.of(
                        engine.records()
                                .preview(
                                        request(
                                                object,
                                                form.key(),
                                                PlainJson.of(form.values()),
                                                actor),
                                        false))
                .without(hidden);
    }

    /** A stored record is shown, with changes, only to who may see it. */
    private void requireSeen(String object, @Nullable String key, Actor actor) {
        if (key == null || key.isBlank()) {
            return;
        }
        boolean seen =
                engine.records()
                        .read((live, session) -> {
                            var type = object(live, object);
                            var access = RecordAccess.of(actor, live, type);
                            return engine.records()
                                    .find(
                                            live,
                                            session,
                                            type,
                                            key,
                                            access.seen(),
                                            access.scope(Action.VIEW))
                                    .isPresent();
                        });
        if (!seen) {
            throw new ProblemException(
                    HttpStatus.NOT_FOUND, "There is no %s %s.".formatted(object, Quoted.of(key)));
        }
    }

    /** Who sees no records is shown what he sent, and nothing else. */
    private Set<String> notSent(String object, Set<String> sent) {
        var type = object(engine.live(), object);
        var hidden = new HashSet<>(type.fields().names());
        type.parts().forEach(part -> hidden.add(part.name()));
        hidden.removeAll(sent);
        return hidden;
    }

    /**
     * What to look for in a pick list.
     *
     * @param part the part whose line item the reference is in, or {@code null}
     * @param item the line item's place, from 0
     */
    record Pick(
            @Nullable String key,
            @NotNull Map<String, @Nullable Object> values,
            @Nullable String part,
            int item,
            @Nullable String search) {}

    /** The records a reference of an unsaved record may point to. */
    @Operation(summary = "The records a reference of an unsaved record may point to")
    @PostMapping("/offers/{object}/{field}")
    ResponseEntity<String> offers(
            @PathVariable String object,
            @PathVariable String field,
            @Valid @RequestBody Pick pick,
            @AuthenticationPrincipal Actor actor) {
        var condition =
                engine.records()
                        .tryOut(
                                request(object, pick.key(), PlainJson.of(pick.values()), actor),
                                Tracer.off(),
                                (_, trial) -> trial.offered(field, pick.part(), pick.item()));
        return engine.records()
                .read((live, session) -> {
                    var target = target(live, object, pick.part(), field);
                    var access = RecordAccess.of(actor, live, target);
                    var search = access.search(engine, pick.search());
                    var query =
                            new Query(
                                            target,
                                            access.seen(),
                                            condition.orElse(null),
                                            search == null ? pick.search() : null,
                                            List.of(),
                                            false,
                                            null,
                                            0,
                                            PICKED,
                                            false,
                                            Query.Retired.WITHOUT)
                                    .where(
                                            engine.records()
                                                    .condition(
                                                            live,
                                                            target,
                                                            access.scope(Action.VIEW)))
                                    .where(search);
                    var records =
                            engine.records().page(live, session, query).records().stream()
                                    .map(record -> RecordJson.of(access, record))
                                    .toList();
                    return ResponseEntity.ok()
                            .header(HttpHeaders.CONTENT_TYPE, MediaType.APPLICATION_JSON_VALUE)
                            .body(JsonText.write(Map.of("records", records)));
                });
    }

    private static ObjectType target(
            LiveRelease live, String object, @Nullable String part, String field) {
        var type = object(live, object);
        var fields =
                part == null
                        ? type.fields()
                        : type.part(part).map(Part::fields).orElse(type.fields());
        return fields.find(field)
                .filter(Field::isReference)
                .map(found -> live.release().target(found))
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND,
                                "%s has no reference %s.".formatted(object, field)));
    }

    /** Which transitions a record can take now, and why it cannot take the others. */
    @Operation(
            summary = "Which transitions a record can take now, and why it cannot take the others")
    @GetMapping("/records/{object}/{key}/transitions")
    List<TransitionState> transitions(
            @PathVariable String object,
            @PathVariable String key,
            @AuthenticationPrincipal Actor actor) {
        var asked = engine.live();
        var lifecycle = object(asked, object).lifecycle();
        if (!actor.on(object).may(Action.EDIT)) {
            RecordAccess.of(actor, asked, object(asked, object)).require(Action.VIEW);
            return List.of();
        }
        if (lifecycle == null) {
            return List.of();
        }
        var states = new ArrayList<TransitionState>();
        for (var transition : lifecycle.transitions()) {
            var preview =
                    engine.records()
                            .preview(
                                    live -> {
                                        var type = object(live, object);
                                        return RecordAccess.of(actor, live, type)
                                                .request(
                                                        new RecordCommand.Transit(
                                                                type, key, transition.name(), null),
                                                        "trial",
                                                        false);
                                    },
                                    false);
            states.add(
                    new TransitionState(
                            transition.name(),
                            transition.label(),
                            transition.to(),
                            Wrong.of(preview.faults())));
        }
        return states;
    }
}
