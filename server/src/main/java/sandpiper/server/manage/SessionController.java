package sandpiper.server.manage;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.access.Actor;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.SignIn;

/** Signing in and out. */
@RestController
@RequestMapping("/manage/v1/session")
class SessionController {
    private final SignIn signIn;

    SessionController(SignIn signIn) {
        this.signIn = signIn;
    }

    /**
     * Who is signed in.
     *
     * @param records whether there are records to see at all
     */
    record Me(String name, List<String> duties, boolean records) {
        static Me of(Actor actor) {
            return new Me(
                    actor.name(),
                    actor.duties().stream()
                            .map(duty -> duty.name().toLowerCase(Locale.ROOT))
                            .sorted()
                            .toList(),
                    actor.seesRecords());
        }
    }

    /** What somebody signs in with. */
    record SignInRequest(
            @NotBlank @Size(max = 60) String name, @NotBlank @Size(max = 200) String password) {}

    @GetMapping
    Me me(@AuthenticationPrincipal @Nullable Actor actor) {
        if (actor == null) {
            throw new ProblemException(HttpStatus.UNAUTHORIZED, "Nobody is signed in.");
        }
        return Me.of(actor);
    }

    @PostMapping
    Me signIn(
            @Valid @RequestBody SignInRequest body,
            HttpServletRequest request,
            HttpServletResponse response) {
        return signIn.signIn(body.name(), body.password(), request, response)
                .map(Me::of)
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.UNAUTHORIZED, "The name or the password is not right."));
    }

    @DeleteMapping
    ResponseEntity<Void> signOut(HttpServletRequest request) {
        signIn.signOut(request);
        return ResponseEntity.noContent().build();
    }
}
