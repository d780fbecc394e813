package sandpiper.server.manage.access;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
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
import sandpiper.server.security.Credentials;
import sandpiper.server.security.SignIn;
import sandpiper.server.settings.Rehearsed;
import sandpiper.server.settings.Settings;

/** Signing in and out. */
@RestController
@RequestMapping("/manage/v1/session")
public class SessionController {
    private final SignIn signIn;
    private final Credentials credentials;
    private final InstanceView instance;

    SessionController(
            SignIn signIn,
            Credentials credentials,
            Settings settings,
            Optional<Rehearsed> rehearsed) {
        this.signIn = signIn;
        this.credentials = credentials;
        this.instance = InstanceView.of(settings.instance(), rehearsed.orElse(null));
    }

    /**
     * Says that this is a copy to rehearse on.
     *
     * @param made when it was copied
     * @param changes files of definitions that differ from what is live
     * @param by who rehearses
     */
    record RehearsalMark(String made, int changes, String by) {}

    /**
     * Where somebody is signed in.
     *
     * @param name empty for none
     * @param colour as in {@code #b3261e}; empty for none
     * @param packagesOnly whether definitions come in packages alone
     * @param rehearsal says that it is a copy; {@code null} when it is the service itself
     */
    record InstanceView(
            String name, String colour, boolean packagesOnly, @Nullable RehearsalMark rehearsal) {
        static InstanceView of(Settings.Instance instance, @Nullable Rehearsed copy) {
            return new InstanceView(
                    instance.name(),
                    instance.colour(),
                    instance.accepts() == Settings.Accepts.PACKAGES,
                    copy == null
                            ? null
                            : new RehearsalMark(copy.made().toString(), copy.changes(), copy.by()));
        }
    }

    /**
     * Who is signed in.
     *
     * @param records whether there are records to see at all
     * @param temporary whether another password has to be chosen before anything else
     */
    record Me(
            String name,
            List<String> duties,
            boolean records,
            boolean temporary,
            InstanceView instance) {
        static Me of(Actor actor, boolean temporary, InstanceView instance) {
            return new Me(
                    actor.name(),
                    actor.duties().stream()
                            .map(duty -> duty.name().toLowerCase(Locale.ROOT))
                            .sorted()
                            .toList(),
                    actor.seesRecords(),
                    temporary,
                    instance);
        }
    }

    /** What somebody signs in with. */
    record SignInRequest(
            @NotBlank @Size(max = 60) String name, @NotBlank @Size(max = 200) String password) {}

    private Me described(Actor actor) {
        return Me.of(
                actor,
                actor.kind() == Actor.Kind.USER && credentials.isTemporary(actor.name()),
                instance);
    }

    @Operation(summary = "Who is signed in")
    @GetMapping
    Me me(@AuthenticationPrincipal @Nullable Actor actor) {
        if (actor == null) {
            throw new ProblemException(HttpStatus.UNAUTHORIZED, "Nobody is signed in.");
        }
        return described(actor);
    }

    @Operation(summary = "Sign in")
    @PostMapping
    Me signIn(
            @Valid @RequestBody SignInRequest body,
            HttpServletRequest request,
            HttpServletResponse response) {
        return signIn.signIn(body.name(), body.password(), request, response)
                .map(this::described)
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.UNAUTHORIZED, "The name or the password is not right."));
    }

    @Operation(summary = "Sign out")
    @DeleteMapping
    ResponseEntity<Void> signOut(HttpServletRequest request, HttpServletResponse response) {
        signIn.signOut(request, response);
        return ResponseEntity.noContent().build();
    }
}
