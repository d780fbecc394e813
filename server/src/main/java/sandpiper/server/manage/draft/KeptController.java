package sandpiper.server.manage.draft;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.definition.KeptAside;
import sandpiper.engine.port.KeptStorage.Kept;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.problem.ProblemException;

/** Values that releases took out of use, kept aside until they come back or their time is over. */
@RestController
@RequestMapping("/manage/v1/kept-values")
public class KeptController {
    private final Engine engine;

    KeptController(Engine engine) {
        this.engine = engine;
    }

    /**
     * Values that are kept aside.
     *
     * @param what the object, line items or field, as it was called: {@code Stay.charges.amount}
     * @param rows how many records or line items have values in it
     * @param release the last release that had it
     * @param until when they are dropped
     */
    record KeptView(long number, String what, long rows, int release, String at, String until) {
        static KeptView of(Kept kept) {
            return new KeptView(
                    kept.number(),
                    kept.place().written(),
                    kept.rows(),
                    kept.release(),
                    kept.at().toString(),
                    kept.at().plus(KeptAside.KEPT).toString());
        }
    }

    @Operation(summary = "List values kept aside since a release removed them, newest first")
    @GetMapping
    List<KeptView> all(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return engine.releases().kept().all().stream().map(KeptView::of).toList();
    }

    @Operation(summary = "Drop values kept aside, for good")
    @DeleteMapping("/{number}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void forget(@PathVariable long number, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.RELEASE);
        if (!engine.releases().kept().forget(number)) {
            throw new ProblemException(
                    HttpStatus.NOT_FOUND, "Nothing is kept aside as %d.".formatted(number));
        }
    }
}
