package sandpiper.server.manage.draft;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.assist.Analysis;
import sandpiper.logic.assist.Completion;
import sandpiper.logic.assist.Hover;
import sandpiper.logic.function.Builtins;
import sandpiper.model.release.Release;
import sandpiper.server.manage.DutyCheck;

/** Help for those who write logic: what is wrong, what can stand here, what a name means. */
@RestController
@RequestMapping("/manage/v1/logic")
public class LogicController {
    private final Engine engine;

    LogicController(Engine engine) {
        this.engine = engine;
    }

    /** One thing wrong with a text; places in code points from 0. */
    public record Finding(
            int start,
            int end,
            String code,
            String message,
            @Nullable String suggestion,
            boolean warning) {
        public static Finding of(LogicProblem problem) {
            return new Finding(
                    problem.span().start(),
                    problem.span().end(),
                    problem.code().id(),
                    problem.message(),
                    problem.suggestion(),
                    !problem.isError());
        }
    }

    /** Everything wrong with a text. */
    record Findings(List<Finding> findings) {}

    /** What can be put in from a place on. */
    record Offer(int from, List<Completion.Item> items) {}

    /** What stands at a place; {@code null} members when there is nothing to say. */
    record HoverText(@Nullable String title, @Nullable String describe, @Nullable String example) {}

    /** A built-in function. */
    record FunctionView(
            String name,
            String chapter,
            List<String> forms,
            String describe,
            List<Example> examples) {}

    /** An expression with what it comes to. */
    record Example(String expression, String result) {}

    /** The draft's objects, as far as they can be understood while somebody is writing. */
    private Release release() {
        return engine.drafts().check().outline();
    }

    @Operation(summary = "Check logic")
    @PostMapping("/check")
    Findings check(@Valid @RequestBody LogicRequest text, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        var release = release();
        var setting = text.setting(release);
        var analysis =
                text.function(release)
                        .map(function -> Analysis.ofBody(text.text(), setting, function))
                        .orElseGet(() -> Analysis.of(text.kind(), text.text(), setting));
        return new Findings(analysis.problems().stream().map(Finding::of).toList());
    }

    @Operation(summary = "What may stand at a place in logic")
    @PostMapping("/complete")
    Offer complete(
            @Valid @RequestBody LogicRequest text,
            @RequestParam int place,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        var offer = Completion.at(text.kind(), text.text(), place, text.setting(release()));
        return new Offer(offer.from(), offer.items());
    }

    @Operation(summary = "What stands at a place in logic")
    @PostMapping("/hover")
    HoverText hover(
            @Valid @RequestBody LogicRequest text,
            @RequestParam int place,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return Hover.at(text.kind(), text.text(), place, text.setting(release()))
                .map(hover -> new HoverText(hover.title(), hover.describe(), hover.example()))
                .orElseGet(() -> new HoverText(null, null, null));
    }

    /** All built-in functions, chapter by chapter. */
    @Operation(summary = "All built-in functions, chapter by chapter")
    @GetMapping("/functions")
    List<FunctionView> functions(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return Builtins.all().stream()
                .map(function ->
                        new FunctionView(
                                function.name(),
                                function.chapter(),
                                function.written(),
                                function.describe(),
                                function.examples().stream()
                                        .map(example ->
                                                new Example(example.expression(), example.result()))
                                        .toList()))
                .toList();
    }
}
