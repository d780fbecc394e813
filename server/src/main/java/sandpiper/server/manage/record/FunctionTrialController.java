package sandpiper.server.manage.record;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.command.CallTrial;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.port.HistoryStorage.ValueChange;
import sandpiper.logic.Quoted;
import sandpiper.model.Diagnostic;
import sandpiper.model.logic.FunctionDraft;
import sandpiper.model.release.FunctionDefinition;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.manage.activity.TraceController.StepView;
import sandpiper.server.manage.record.TrialController.Wrong;
import sandpiper.server.problem.ProblemException;

/** Tries functions of the draft on records there are. Nothing is kept, and no event leaves. */
@RestController
@RequestMapping("/manage/v1/trial/functions/{object}/{function}")
public class FunctionTrialController {
    private final Engine engine;

    FunctionTrialController(Engine engine) {
        this.engine = engine;
    }

    /**
     * A function to try.
     *
     * @param key of the record, or {@code null} for a function of the object as a whole
     */
    record FunctionTry(@Nullable String key, @Nullable Map<String, @Nullable Object> arguments) {}

    /** What trying it came to. */
    record FunctionTried(
            boolean returns,
            @Nullable Object result,
            List<Wrong> faults,
            List<Wrong> warnings,
            List<DifferenceView> differences,
            List<RaisedView> events,
            List<String> notes,
            List<StepView> steps) {}

    /** A record that would be another. */
    record DifferenceView(String object, String key, String what, List<ValueChangeView> changes) {}

    /** A value that would be another; {@code null} for none. */
    record ValueChangeView(String path, @Nullable String before, @Nullable String after) {
        static ValueChangeView of(ValueChange change) {
            return new ValueChangeView(change.path(), change.before(), change.after());
        }
    }

    /** An event that would be raised. */
    record RaisedView(String name, Map<String, @Nullable Object> data) {}

    @Operation(summary = "Try a function without keeping anything")
    @PostMapping
    FunctionTried tryCall(
            @PathVariable String object,
            @PathVariable String function,
            @Valid @RequestBody FunctionTry body,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        var definition = definition(object, function);
        var arguments = body.arguments();
        var key = definition.onRecord() ? body.key() : null;
        if (definition.onRecord() && (key == null || key.isBlank())) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST, "Choose a record to try the function on.");
        }
        var trial =
                engine.records()
                        .tryCall(
                                live -> {
                                    var type = FunctionController.object(live, object);
                                    return RecordAccess.of(actor, live, type)
                                            .request(
                                                    new RecordCommand.Call(
                                                            type,
                                                            key,
                                                            function,
                                                            arguments == null
                                                                    ? Map.of()
                                                                    : PlainJson.of(arguments),
                                                            null),
                                                    "trial",
                                                    false);
                                },
                                live -> {
                                    var draft =
                                            FunctionDraft.of(
                                                    live.release(),
                                                    FunctionController.object(live, object),
                                                    definition);
                                    if (draft.hasErrors()) {
                                        throw unfit(draft);
                                    }
                                    return draft.function();
                                });
        return tried(trial);
    }

    /** The function as it is in the draft, or as it is live when the draft cannot be read. */
    private FunctionDefinition definition(String object, String name) {
        var release = engine.drafts().check().release().orElseGet(() -> engine.live().release());
        return release.find(object)
                .flatMap(found -> found.function(name))
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND,
                                "%s has no function %s.".formatted(object, Quoted.of(name))));
    }

    private static ProblemException unfit(FunctionDraft draft) {
        var first =
                draft.diagnostics().stream()
                        .filter(one -> one.severity() == Diagnostic.Severity.ERROR)
                        .findFirst()
                        .orElseThrow();
        return new ProblemException(
                HttpStatus.CONFLICT,
                "It does not fit what is released, so it can be tried only after a release: "
                        + first.message());
    }

    private static FunctionTried tried(CallTrial trial) {
        var result = trial.result();
        return new FunctionTried(
                result != null,
                result == null ? null : result.value(),
                Wrong.of(trial.faults()),
                Wrong.of(trial.warnings()),
                trial.differences().stream()
                        .map(one ->
                                new DifferenceView(
                                        one.object(),
                                        one.key(),
                                        one.what(),
                                        one.changes().stream().map(ValueChangeView::of).toList()))
                        .toList(),
                trial.events().stream().map(one -> new RaisedView(one.name(), one.data())).toList(),
                trial.notes(),
                StepView.of(trial.steps()));
    }
}
