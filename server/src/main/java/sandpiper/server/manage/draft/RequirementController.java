package sandpiper.server.manage.draft;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.example.ExampleResult;
import sandpiper.model.check.Definitions;
import sandpiper.model.definition.Requirement;
import sandpiper.model.release.Release;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.manage.activity.TraceController.StepView;
import sandpiper.server.problem.ProblemException;

/** What the customer asked for, and whether the draft does it: each example is played anew. */
@RestController
@RequestMapping("/manage/v1/requirements")
public class RequirementController {
    private final Engine engine;
    private final ExampleRuns runs;

    RequirementController(Engine engine, ExampleRuns runs) {
        this.engine = engine;
        this.runs = runs;
    }

    /** How far a requirement is proved. */
    enum Proof {
        PROVED,
        FAILING,
        /** It has no example. */
        OPEN
    }

    /** A line of what was asked for. */
    record RequirementView(
            String id, String packageName, String text, Proof proof, List<ExampleView> examples) {}

    /**
     * An example with what came of it.
     *
     * @param problems what is another than expected; none when it holds
     */
    record ExampleView(
            String name,
            String label,
            String file,
            int line,
            boolean holds,
            List<String> problems,
            List<StepView> steps) {}

    /** All of them. */
    record Requirements(int proved, int failing, int open, List<RequirementView> requirements) {}

    /** Definitions to be looked at without becoming the draft, by path. */
    record ExampleFiles(@NotNull Map<String, String> files) {}

    /** The draft's. */
    @Operation(summary = "The draft's")
    @GetMapping
    Requirements requirements(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return proved(engine.drafts().files());
    }

    /** Those of files that need not be the draft. */
    @Operation(summary = "Those of files that need not be the draft")
    @PostMapping
    Requirements check(
            @Valid @RequestBody ExampleFiles body, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return proved(body.files());
    }

    private Requirements proved(Map<String, String> files) {
        var release =
                Definitions.check(files)
                        .release()
                        .orElseThrow(() ->
                                new ProblemException(
                                        HttpStatus.CONFLICT,
                                        "The definitions have errors; examples can be played when"
                                                + " they are mended."));
        return view(release, runs.of(files));
    }

    private static Requirements view(Release release, List<ExampleResult> results) {
        var views = new ArrayList<RequirementView>();
        for (var requirement : release.requirements()) {
            var ofIt =
                    results.stream()
                            .filter(one -> one.requirement().equals(requirement.id()))
                            .toList();
            views.add(view(requirement, ofIt));
        }
        return new Requirements(
                count(views, Proof.PROVED),
                count(views, Proof.FAILING),
                count(views, Proof.OPEN),
                views);
    }

    private static int count(List<RequirementView> views, Proof proof) {
        return (int) views.stream().filter(one -> one.proof() == proof).count();
    }

    private static RequirementView view(Requirement requirement, List<ExampleResult> results) {
        var examples = new ArrayList<ExampleView>();
        for (int i = 0; i < results.size(); i++) {
            var result = results.get(i);
            var example = requirement.examples().get(i);
            examples.add(
                    new ExampleView(
                            result.name(),
                            result.label(),
                            example.file(),
                            example.place().line(),
                            result.holds(),
                            result.problems(),
                            StepView.of(result.steps())));
        }
        var proof =
                results.isEmpty()
                        ? Proof.OPEN
                        : results.stream().allMatch(ExampleResult::holds)
                                ? Proof.PROVED
                                : Proof.FAILING;
        return new RequirementView(
                requirement.id(), requirement.packageName(), requirement.text(), proof, examples);
    }
}
