package sandpiper.server.manage.record;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.trial.Trial;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.check.CheckedTerm;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.StepChecker;
import sandpiper.logic.run.Calculator;
import sandpiper.logic.value.ValueText;
import sandpiper.logic.value.Values;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.manage.activity.TraceController.StepView;
import sandpiper.server.manage.draft.LogicController.Finding;
import sandpiper.server.manage.draft.LogicRequest;

/** Tries logic, on a record or by itself, without keeping anything. */
@RestController
@RequestMapping("/manage/v1/trials")
public class LogicTrialController {
    private final Engine engine;

    LogicTrialController(Engine engine) {
        this.engine = engine;
    }

    /**
     * Logic to try.
     *
     * @param key of the record to try it on; without one a new record is made of the values
     * @param values that are put into the record first
     */
    record Try(
            @Valid @NotNull LogicRequest logic,
            @Nullable String key,
            @Nullable Map<String, @Nullable Object> values) {}

    /**
     * What a try came to.
     *
     * @param value as it would be written, or {@code null} when it could not be run
     * @param kind what sort of value it is
     * @param notes why something came to null
     * @param record what the record would be, after steps
     */
    record Tried(
            @Nullable String value,
            @Nullable String kind,
            List<Finding> findings,
            List<String> notes,
            List<TrialController.Wrong> faults,
            TrialController.@Nullable RecordPreview record,
            List<StepView> steps) {}

    /** Runs logic on a record, or by itself. */
    @Operation(summary = "Runs logic on a record, or by itself")
    @PostMapping
    Tried tryOut(@Valid @RequestBody Try body, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        var logic = body.logic();
        if (logic.object() == null || logic.object().isBlank()) {
            return alone(logic.text());
        }
        var values =
                body.values() == null
                        ? new LinkedHashMap<String, @Nullable Object>()
                        : PlainJson.of(body.values());
        var tracer = Tracer.on();
        return engine.records()
                .tryOut(
                        TrialController.request(logic.object(), body.key(), values, actor),
                        tracer,
                        (live, trial) -> run(live, trial, logic, tracer));
    }

    private Tried alone(String text) {
        var answer = new Calculator(engine.clock()).evaluate(text);
        return new Tried(
                ValueText.literal(answer.value()),
                Values.kind(answer.value()),
                findings(answer.problems()),
                answer.notes(),
                List.of(),
                null,
                List.of());
    }

    private static List<Finding> findings(List<LogicProblem> problems) {
        return problems.stream().map(Finding::of).toList();
    }

    private static Tried run(LiveRelease live, Trial trial, LogicRequest logic, Tracer tracer) {
        if (!trial.faults().isEmpty()) {
            return new Tried(
                    null,
                    null,
                    List.of(),
                    List.of(),
                    TrialController.Wrong.of(trial.faults()),
                    null,
                    List.of());
        }
        var setting = logic.setting(live.release());
        if (logic.role() == LogicRequest.Role.THEN) {
            var checked = StepChecker.check(logic.text(), setting);
            if (!checked.isAccepted()) {
                return wrong(checked.problems());
            }
            var preview = trial.run(checked).map(TrialController.RecordPreview::of).orElse(null);
            return new Tried(
                    null,
                    null,
                    findings(checked.problems()),
                    trial.notes(),
                    preview == null ? List.of() : preview.faults(),
                    preview,
                    StepView.of(tracer.steps()));
        }
        CheckedTerm checked =
                switch (logic.role()) {
                    case SAY -> Checker.template(logic.text(), setting);
                    case CHECK -> Checker.check(logic.text(), setting, true);
                    case CONDITION, WHEN, OFFER -> Checker.condition(logic.text(), setting);
                    default -> Checker.check(logic.text(), setting);
                };
        if (!checked.isAccepted()) {
            return wrong(checked.problems());
        }
        var value = trial.value(checked);
        return new Tried(
                ValueText.literal(value),
                Values.kind(value),
                findings(checked.problems()),
                trial.notes(),
                List.of(),
                null,
                StepView.of(tracer.steps()));
    }

    private static Tried wrong(List<LogicProblem> problems) {
        return new Tried(null, null, findings(problems), List.of(), List.of(), null, List.of());
    }
}
