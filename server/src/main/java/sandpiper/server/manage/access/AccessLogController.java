package sandpiper.server.manage.access;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.AccessEntry;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.server.manage.DutyCheck;

/** Tells who changed what of users, roles and clients. */
@RestController
public class AccessLogController {
    private static final int ENTRIES = 200;

    private final Engine engine;

    AccessLogController(Engine engine) {
        this.engine = engine;
    }

    /** One change of who may do what. */
    record EntryView(String at, String by, String what, String subject, String detail) {
        static EntryView of(AccessEntry entry) {
            return new EntryView(
                    entry.at().toString(),
                    entry.actor(),
                    entry.what(),
                    entry.subject(),
                    entry.detail());
        }
    }

    /** Who changed what of access, newest first. */
    @Operation(summary = "Who changed what of access, newest first")
    @GetMapping("/manage/v1/access-log")
    List<EntryView> log(@AuthenticationPrincipal Actor actor) {
        if (!actor.has(Duty.AUDIT)) {
            DutyCheck.require(actor, Duty.ACCESS);
        }
        return engine.accounts().log().latest(ENTRIES).stream().map(EntryView::of).toList();
    }
}
