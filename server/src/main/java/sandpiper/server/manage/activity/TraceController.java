package sandpiper.server.manage.activity;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.trace.Trace;
import sandpiper.engine.trace.TraceStep;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.problem.ProblemException;

/** Accounts of requests: all that were refused, and those somebody asked for. */
@RestController
@RequestMapping("/manage/v1/traces")
public class TraceController {
    private static final int HIGHEST_LIMIT = 500;

    private final Engine engine;

    TraceController(Engine engine) {
        this.engine = engine;
    }

    /** One request. */
    record TraceView(
            String id,
            String at,
            String by,
            String via,
            String what,
            String outcome,
            List<StepView> steps) {
        public static TraceView of(Trace trace, Actor reader) {
            boolean shown = reader.seesEverything() || trace.by().equals(reader.name());
            return new TraceView(
                    trace.id().toString(),
                    trace.at().toString(),
                    trace.by(),
                    trace.via(),
                    shown ? trace.what() : withoutKey(trace.what()),
                    trace.outcome(),
                    shown ? StepView.of(trace.steps()) : StepView.withoutValues(trace.steps()));
        }
    }

    /** {@code change Stay} of {@code change Stay ST-2026-000042}. */
    private static String withoutKey(String what) {
        var words = what.split(" ", 3);
        return words.length < 3 ? what : words[0] + " " + words[1];
    }

    /** One step; deeper ones belong to the one above. */
    public record StepView(
            int depth, String kind, String title, String detail, String result, long micros) {
        public static List<StepView> of(List<TraceStep> steps) {
            return steps.stream()
                    .map(step ->
                            new StepView(
                                    step.depth(),
                                    step.kind().name(),
                                    step.title(),
                                    step.detail(),
                                    step.result(),
                                    step.micros()))
                    .toList();
        }

        /** What was done in which order, for those who do not see the records it was done to. */
        static List<StepView> withoutValues(List<TraceStep> steps) {
            return steps.stream()
                    .map(step ->
                            new StepView(
                                    step.depth(),
                                    step.kind().name(),
                                    defined(step),
                                    "not shown: you do not see all records",
                                    step.kind() == TraceStep.Kind.REFUSED ? step.result() : "",
                                    step.micros()))
                    .toList();
        }

        /** What of a title the package defines; the rest names a record or holds values. */
        private static String defined(TraceStep step) {
            return switch (step.kind()) {
                case INPUT, TRANSITION, EVENT, LOCAL, STORED -> step.title();
                case FORMULA, RULE, CHECK ->
                        step.title().substring(step.title().lastIndexOf(": ") + 1).strip();
                default -> "";
            };
        }
    }

    @Operation(summary = "List the latest traces")
    @GetMapping
    List<TraceView> latest(
            @RequestParam(defaultValue = "50") int limit, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return engine.traces().latest(Math.clamp(limit, 1, HIGHEST_LIMIT)).stream()
                .map(trace -> TraceView.of(trace, actor))
                .toList();
    }

    @Operation(summary = "Show a trace")
    @GetMapping("/{id}")
    TraceView find(@PathVariable UUID id, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return engine.traces()
                .find(id)
                .map(trace -> TraceView.of(trace, actor))
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND,
                                "There is no such trace; only the last thousand are kept."));
    }
}
