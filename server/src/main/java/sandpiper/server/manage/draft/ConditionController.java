package sandpiper.server.manage.draft;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.logic.outline.Outlines;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.problem.ProblemException;

/** Takes conditions apart for those who put them together without writing, and writes them. */
@RestController
@RequestMapping("/manage/v1/conditions")
public class ConditionController {
    /** A condition as it is written. */
    record ConditionText(@NotNull @Size(max = ConditionView.LONGEST) String text) {}

    /** The parts of a text, which mean the same; what cannot be taken apart is a text again. */
    @Operation(summary = "The parts of a text, which mean the same")
    @PostMapping("/parts")
    ConditionView parts(
            @Valid @RequestBody ConditionText body, @AuthenticationPrincipal Actor actor) {
        require(actor);
        return ConditionView.of(Outlines.read(body.text()));
    }

    /** The text of parts. */
    @Operation(summary = "The text of parts")
    @PostMapping("/text")
    ConditionText text(
            @Valid @RequestBody ConditionView body, @AuthenticationPrincipal Actor actor) {
        require(actor);
        try {
            return new ConditionText(Outlines.write(body.outline()));
        } catch (IllegalArgumentException unfinished) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST, String.valueOf(unfinished.getMessage()), unfinished);
        }
    }

    /** Conditions are written by those who design, give access, or look for records. */
    private static void require(Actor actor) {
        if (!actor.has(Duty.DESIGN) && !actor.has(Duty.ACCESS)) {
            DutyCheck.requireRecords(actor);
        }
    }
}
