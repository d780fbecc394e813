package sandpiper.server.manage.access;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.OpenSession;
import sandpiper.engine.signin.OpenSessions;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.SignIn;

/** Where somebody is signed in, to see it and to end it. */
@RestController
@RequestMapping("/manage/v1/sessions")
public class OwnSessionsController {
    private final OpenSessions sessions;
    private final SignIn signIn;

    OwnSessionsController(OpenSessions sessions, SignIn signIn) {
        this.sessions = sessions;
        this.signIn = signIn;
    }

    /**
     * An open session of one's own.
     *
     * @param begun when it was signed in, in RFC 3339
     * @param used when it was last used, in RFC 3339, exact to a minute
     * @param own whether it is the one that asks
     */
    record SessionView(
            String id, String address, String agent, String begun, String used, boolean own) {
        static SessionView of(OpenSession one, @Nullable String asking) {
            return new SessionView(
                    one.id(),
                    one.address(),
                    one.agent(),
                    one.begun().toString(),
                    one.used().toString(),
                    one.id().equals(asking));
        }
    }

    @Operation(summary = "List one's own sessions")
    @GetMapping
    List<SessionView> own(@AuthenticationPrincipal Actor actor, HttpServletRequest request) {
        var asking = signIn.sessionOf(request).orElse(null);
        return sessions.of(actor.name()).stream().map(one -> SessionView.of(one, asking)).toList();
    }

    @Operation(summary = "End one of one's own sessions")
    @DeleteMapping("/{id}")
    ResponseEntity<Void> end(@PathVariable String id, @AuthenticationPrincipal Actor actor) {
        if (!sessions.end(actor.name(), id)) {
            throw new ProblemException(
                    HttpStatus.NOT_FOUND, "There is no such session of yours; it may have ended.");
        }
        return ResponseEntity.noContent().build();
    }
}
