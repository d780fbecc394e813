package sandpiper.server.manage.draft;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.definition.ReleasePreview;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.port.DefinitionStorage.StoredRelease;
import sandpiper.model.Diagnostic;
import sandpiper.model.check.Definitions;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.ProblemException;

/** Releases: what there were, what the next would mean, and making it. */
@RestController
@RequestMapping("/manage/v1/releases")
public class ReleaseController {
    private final Engine engine;
    private final ExampleRuns runs;

    ReleaseController(Engine engine, ExampleRuns runs) {
        this.runs = runs;
        this.engine = engine;
    }

    /** One release. */
    record ReleaseView(int number, String at, String by, String note, List<String> changes) {
        static ReleaseView of(StoredRelease release) {
            return new ReleaseView(
                    release.number(),
                    release.at().toString(),
                    release.by(),
                    release.note(),
                    release.changes());
        }
    }

    /**
     * What is wanted of a release.
     *
     * @param forget whether values of what is removed are dropped at once, and not kept aside
     */
    record ReleaseRequest(
            @Nullable @Size(max = 500) String note,
            @Nullable Boolean acceptLosses,
            @Nullable Boolean acceptBreaks,
            @Nullable Boolean acceptFailing,
            @Nullable Boolean forget) {
        Releases.Order order() {
            return new Releases.Order(
                    note == null ? "" : note,
                    new Releases.Accepted(
                            Boolean.TRUE.equals(acceptLosses), Boolean.TRUE.equals(acceptBreaks)),
                    Boolean.TRUE.equals(forget));
        }
    }

    @Operation(summary = "List releases, newest first")
    @GetMapping
    List<ReleaseView> all(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return engine.releases().all().stream().map(ReleaseView::of).toList();
    }

    @Operation(summary = "What releasing the draft would mean")
    @GetMapping("/preview")
    ReleasePreview preview(
            @RequestParam(defaultValue = "false") boolean forget,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return engine.releases().preview(forget);
    }

    @Operation(summary = "The files of a release")
    @GetMapping("/{number}/files")
    Map<String, String> files(@PathVariable int number, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        var files = engine.releases().filesOf(number);
        if (files.isEmpty()) {
            throw unknown(number);
        }
        return files;
    }

    @Operation(summary = "Release the draft")
    @PostMapping
    ReleaseView release(
            @Valid @RequestBody ReleaseRequest body, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.RELEASE);
        requireExamples(body, engine.drafts().files());
        return answer(engine.releases().release(body.order(), actor));
    }

    @Operation(summary = "What going back to an earlier release would mean")
    @GetMapping("/{number}/take-back")
    ReleasePreview previewOfTakingBack(
            @PathVariable int number,
            @RequestParam(defaultValue = "false") boolean forget,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return engine.releases()
                .previewOfTakingBack(number, forget)
                .orElseThrow(() -> unknown(number));
    }

    @Operation(summary = "Make an earlier release live again, as a new release")
    @PostMapping("/{number}/take-back")
    ReleaseView takeBack(
            @PathVariable int number,
            @Valid @RequestBody ReleaseRequest body,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.RELEASE);
        requireExamples(body, engine.releases().filesOf(number));
        return answer(
                engine.releases()
                        .takeBack(number, body.order(), actor)
                        .orElseThrow(() -> unknown(number)));
    }

    private static ReleaseView answer(ReleasePreview.Result result) {
        return switch (result) {
            case ReleasePreview.Result.Released(var release) -> ReleaseView.of(release);
            case ReleasePreview.Result.Refused(var preview, var message) ->
                    throw refused(preview, message);
        };
    }

    private static ProblemException unknown(int number) {
        return new ProblemException(
                HttpStatus.NOT_FOUND, "There is no release %d.".formatted(number));
    }

    /** What was proved must stay so, unless whoever releases says otherwise. */
    private void requireExamples(ReleaseRequest body, Map<String, String> files) {
        if (Boolean.TRUE.equals(body.acceptFailing())
                || !Definitions.check(files).errors().isEmpty()) {
            return;
        }
        var failing = runs.of(files).stream().filter(one -> !one.holds()).toList();
        if (!failing.isEmpty()) {
            throw new ProblemException(
                    HttpStatus.CONFLICT,
                    "Examples fail; mend them, or accept that. Nothing was released.",
                    failing.stream()
                            .map(one ->
                                    new Problem.Wrong(
                                            FaultPath.WHOLE,
                                            "SP5004",
                                            "%s, %s: %s"
                                                    .formatted(
                                                            one.requirement(),
                                                            one.label(),
                                                            String.join(" ", one.problems()))))
                            .toList());
        }
    }

    private static ProblemException refused(ReleasePreview preview, String message) {
        var errors = new ArrayList<Problem.Wrong>();
        for (var diagnostic : preview.diagnostics()) {
            if (diagnostic.severity() == Diagnostic.Severity.ERROR) {
                errors.add(
                        new Problem.Wrong(
                                FaultPath.WHOLE,
                                diagnostic.code(),
                                "%s:%d:%d %s"
                                        .formatted(
                                                diagnostic.file(),
                                                diagnostic.line(),
                                                diagnostic.column(),
                                                diagnostic.message())));
            }
        }
        preview.obstacles()
                .forEach(obstacle ->
                        errors.add(new Problem.Wrong(FaultPath.WHOLE, "SP5001", obstacle)));
        if (errors.isEmpty() || !preview.obstacles().isEmpty()) {
            preview.losses()
                    .forEach(
                            loss -> errors.add(new Problem.Wrong(FaultPath.WHOLE, "SP5002", loss)));
            preview.breaks()
                    .forEach(one -> errors.add(new Problem.Wrong(FaultPath.WHOLE, "SP5003", one)));
        }
        return new ProblemException(HttpStatus.CONFLICT, message, errors);
    }
}
