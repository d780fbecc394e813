package sandpiper.server.manage.access;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.access.StoredUser;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.Credentials;
import sandpiper.server.security.PasswordRules;

/** People who sign in to the console. */
@RestController
@RequestMapping("/manage/v1/users")
public class UserController {
    private final Engine engine;
    private final PasswordEncoder passwords;
    private final Credentials credentials;

    UserController(Engine engine, PasswordEncoder passwords, Credentials credentials) {
        this.engine = engine;
        this.credentials = credentials;
        this.passwords = passwords;
    }

    /**
     * A person.
     *
     * @param duties what the person may do whatever the roles
     * @param disabled whether the person may do nothing for now
     * @param temporary whether the password is for signing in once, to choose another
     */
    record UserView(
            String name,
            String label,
            List<String> duties,
            List<String> roles,
            boolean disabled,
            boolean temporary) {
        static UserView of(StoredUser user) {
            return new UserView(
                    user.name(),
                    user.label(),
                    user.duties().stream().map(duty -> duty.toLowerCase(Locale.ROOT)).toList(),
                    user.roles(),
                    user.disabled(),
                    user.temporary());
        }
    }

    /**
     * A person to be added.
     *
     * @param temporary whether the password is for signing in once, to choose another; absent: no
     */
    record NewUser(
            @NotBlank
                    @Pattern(
                            regexp = "[a-z0-9.-]{2,60}",
                            message = "has 2 to 60 small letters, digits, points and hyphens")
                    String name,
            @Nullable @Size(max = 80) String label,
            @NotBlank @Size(min = 8, max = 200) String password,
            @Nullable List<Duty> duties,
            @Nullable List<String> roles,
            @Nullable Boolean temporary) {}

    /**
     * What is changed of a person; what is absent stays. A new password ends open sessions.
     *
     * @param temporary whether the new password is for signing in once, to choose another
     */
    record UserChange(
            @Nullable @Size(max = 80) String label,
            @Nullable @Size(min = 8, max = 200) String password,
            @Nullable List<Duty> duties,
            @Nullable List<String> roles,
            @Nullable Boolean disabled,
            @Nullable Boolean temporary) {}

    @Operation(summary = "List users")
    @GetMapping
    List<UserView> users(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        return engine.accounts().users().all().stream().map(UserView::of).toList();
    }

    @Operation(summary = "Make a user")
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    UserView make(@Valid @RequestBody NewUser body, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        var duties = body.duties() == null ? List.<Duty>of() : body.duties();
        var roles = body.roles() == null ? List.<String>of() : body.roles();
        PasswordRules.require(body.name(), body.password());
        var user =
                new StoredUser(
                        body.name(),
                        body.label() == null ? body.name() : body.label(),
                        String.valueOf(passwords.encode(body.password())),
                        duties.stream().map(Duty::name).toList(),
                        roles,
                        false,
                        Boolean.TRUE.equals(body.temporary()));
        engine.accounts().users().add(actor, user);
        return UserView.of(user);
    }

    private String hash(String name, String password) {
        PasswordRules.require(name, password);
        return String.valueOf(passwords.encode(password));
    }

    @Operation(summary = "Change a user")
    @PatchMapping("/{name}")
    UserView change(
            @PathVariable String name,
            @Valid @RequestBody UserChange body,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        boolean ownRights =
                name.equals(actor.name())
                        && (Boolean.TRUE.equals(body.disabled())
                                || body.roles() != null
                                || body.duties() != null);
        if (ownRights) {
            throw new ProblemException(
                    HttpStatus.CONFLICT,
                    "You cannot change your own rights; somebody else with the duty can.");
        }
        if (name.equals(actor.name()) && body.password() != null) {
            throw new ProblemException(
                    HttpStatus.CONFLICT,
                    "Your own password is changed with the current one beside it, at"
                            + " /manage/v1/users/me/password.");
        }
        if (body.temporary() != null && body.password() == null) {
            throw new ProblemException(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "temporary goes with a new password; send both.");
        }
        var hash = body.password() == null ? null : hash(name, body.password());
        return UserView.of(
                update(
                        name,
                        actor,
                        "user changed",
                        user -> {
                            return new StoredUser(
                                    name,
                                    body.label() == null ? user.label() : body.label(),
                                    hash == null ? user.passwordHash() : hash,
                                    body.duties() == null
                                            ? user.duties()
                                            : body.duties().stream().map(Duty::name).toList(),
                                    body.roles() == null ? user.roles() : body.roles(),
                                    body.disabled() == null ? user.disabled() : body.disabled(),
                                    body.password() == null
                                            ? user.temporary()
                                            : Boolean.TRUE.equals(body.temporary()));
                        }));
    }

    private StoredUser update(
            String name, Actor actor, String what, UnaryOperator<StoredUser> change) {
        return engine.accounts().users().change(actor, name, what, change);
    }

    @Operation(summary = "Remove a user")
    @DeleteMapping("/{name}")
    ResponseEntity<Void> remove(@PathVariable String name, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        engine.accounts().users().remove(actor, name);
        return ResponseEntity.noContent().build();
    }

    /** A change of one's own password. */
    record PasswordChange(
            @NotBlank String current, @NotBlank @Size(min = 8, max = 200) String next) {}

    /** Changes one's own password, which ends every open session. */
    @Operation(summary = "Changes one's own password, which ends every open session")
    @PostMapping("/me/password")
    ResponseEntity<Void> changePassword(
            @Valid @RequestBody PasswordChange body, @AuthenticationPrincipal Actor actor) {
        // Hashed before: whoever writes would wait for it.
        var stored = engine.accounts().users().get(actor.name());
        if (!credentials.isCurrent(stored, body.current())) {
            throw new ProblemException(
                    HttpStatus.UNPROCESSABLE_CONTENT, "The current password is not right.");
        }
        if (body.next().equals(body.current())) {
            throw new ProblemException(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "The new password is the current one; choose another.");
        }
        var next = hash(actor.name(), body.next());
        update(
                actor.name(),
                actor,
                "password changed",
                user ->
                        new StoredUser(
                                user.name(),
                                user.label(),
                                next,
                                user.duties(),
                                user.roles(),
                                user.disabled(),
                                false));
        return ResponseEntity.noContent().build();
    }
}
