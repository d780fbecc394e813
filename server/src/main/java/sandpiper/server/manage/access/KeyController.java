package sandpiper.server.manage.access;

import io.swagger.v3.oas.annotations.Operation;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.security.Keys;

/** The keys of tokens and cursors. */
@RestController
public class KeyController {
    private final Keys keys;

    KeyController(Keys keys) {
        this.keys = keys;
    }

    /** Makes new keys, as after a backup got into other hands: all tokens end, and all cursors. */
    @Operation(summary = "Makes new keys, as after a backup got into other hands")
    @PostMapping("/manage/v1/keys/renew")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void renew(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        keys.renew(actor);
    }
}
