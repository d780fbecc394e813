package sandpiper.server.manage.draft;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.model.release.Release;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.manage.draft.ModelView.Source;

/** What objects and services there are, live or as the draft has them. */
@RestController
@RequestMapping("/manage/v1/model")
public class ModelController {
    private final Engine engine;

    ModelController(Engine engine) {
        this.engine = engine;
    }

    @Operation(summary = "Show the model")
    @GetMapping
    ModelView model(
            @RequestParam(defaultValue = "LIVE") Source of, @AuthenticationPrincipal Actor actor) {
        if (of != Source.LIVE) {
            DutyCheck.require(actor, Duty.DESIGN);
        } else {
            DutyCheck.requireRecords(actor);
        }
        var live = engine.live().release();
        if (of == Source.LIVE) {
            return ModelView.of(live, Source.LIVE).seenBy(actor);
        }
        var checked = engine.drafts().check();
        if (of == Source.OUTLINE) {
            return ModelView.of(checked.outline(), Source.OUTLINE);
        }
        return checked.release()
                .map(draft -> ModelView.of(draft, Source.DRAFT))
                .orElseGet(() -> ModelView.of(live, Source.LIVE));
    }

    /** The fields of a service as its operations show them, for the console's tree. */
    @Operation(
            summary = "The fields of a service as its operations show them, for the console's tree")
    @GetMapping("/services")
    List<ServiceView> services(
            @RequestParam(defaultValue = "LIVE") Source of, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return of(of).services().stream().map(ServiceView::of).toList();
    }

    private Release of(Source source) {
        var live = engine.live().release();
        return switch (source) {
            case LIVE -> live;
            case DRAFT -> engine.drafts().check().release().orElse(live);
            case OUTLINE -> engine.drafts().check().outline();
        };
    }
}
