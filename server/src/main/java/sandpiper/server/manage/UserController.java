package sandpiper.server.manage;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.EnumSet;
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
import sandpiper.engine.access.Role;
import sandpiper.engine.port.AccessStorage.StoredUser;
import sandpiper.engine.port.Session;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.Credentials;
import sandpiper.server.security.PasswordRules;

/** People who sign in to the console. */
@RestController
@RequestMapping("/manage/v1/users")
class UserController {
    private final Engine engine;
    private final PasswordEncoder passwords;
    private final Credentials credentials;
    private final AccessLog log;

    UserController(
            Engine engine, PasswordEncoder passwords, Credentials credentials, AccessLog log) {
        this.engine = engine;
        this.credentials = credentials;
        this.passwords = passwords;
        this.log = log;
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

    @GetMapping
    List<UserView> users(@AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.ACCESS);
        return engine.read(session -> engine.storage().access().users(session)).stream()
                .map(UserView::of)
                .toList();
    }

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    UserView make(@Valid @RequestBody NewUser body, @AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.ACCESS);
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
        engine.write(transaction -> {
            var access = engine.storage().access();
            if (access.user(transaction, body.name()).isPresent()) {
                throw new ProblemException(
                        HttpStatus.CONFLICT, "There is a user %s already.".formatted(body.name()));
            }
            AccessNames.requireFree(transaction, access, body.name());
            checkRoles(transaction, roles);
            requireHeld(transaction, actor, user);
            access.putUser(transaction, user);
            log.note(transaction, actor, "user made", user.name(), described(user));
            return true;
        });
        return UserView.of(user);
    }

    /** Nobody gives, or takes over, a duty that is not his own. */
    private void requireHeld(Session session, Actor actor, StoredUser user) {
        var duties = EnumSet.noneOf(Duty.class);
        user.duties().forEach(duty -> duties.add(Duty.valueOf(duty)));
        engine.storage().access().roles(session).stream()
                .filter(role -> user.roles().contains(role.name()))
                .forEach(role -> duties.addAll(role.duties()));
        duties.removeAll(actor.duties());
        if (!duties.isEmpty()) {
            throw new ProblemException(
                    HttpStatus.CONFLICT,
                    "%s has or would have a duty that you do not have: %s. Somebody who has it can do this."
                            .formatted(
                                    user.name(),
                                    String.join(
                                            ", ",
                                            duties.stream()
                                                    .map(duty ->
                                                            duty.name().toLowerCase(Locale.ROOT))
                                                    .toList())));
        }
    }

    private String hash(String name, String password) {
        PasswordRules.require(name, password);
        return String.valueOf(passwords.encode(password));
    }

    private static String described(StoredUser user) {
        var words = new ArrayList<String>();
        if (!user.roles().isEmpty()) {
            words.add("roles " + String.join(", ", user.roles()));
        }
        if (!user.duties().isEmpty()) {
            words.add("duties " + String.join(", ", user.duties()).toLowerCase(Locale.ROOT));
        }
        return String.join("; ", words);
    }

    private void checkRoles(Session session, List<String> roles) {
        var known = engine.storage().access().roles(session).stream().map(Role::name).toList();
        for (var role : roles) {
            if (!known.contains(role)) {
                throw new ProblemException(
                        HttpStatus.UNPROCESSABLE_CONTENT,
                        "There is no role %s.%s"
                                .formatted(
                                        Quoted.of(role),
                                        Nearest.to(role, known)
                                                .map(near -> " Did you mean %s?".formatted(near))
                                                .orElse("")));
            }
        }
    }

    @PatchMapping("/{name}")
    UserView change(
            @PathVariable String name,
            @Valid @RequestBody UserChange body,
            @AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.ACCESS);
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
        return engine.write(transaction -> {
            var access = engine.storage().access();
            var before = access.user(transaction, name).orElseThrow(() -> unknown(name));
            var after = change.apply(before);
            checkRoles(transaction, after.roles());
            if (!name.equals(actor.name())) {
                requireHeld(transaction, actor, before);
                requireHeld(transaction, actor, after);
            }
            access.putUser(transaction, after);
            log.note(transaction, actor, what, name, difference(before, after));
            return after;
        });
    }

    private static String difference(StoredUser before, StoredUser after) {
        var words = new ArrayList<String>();
        if (!before.passwordHash().equals(after.passwordHash())) {
            words.add("new password");
        }
        if (before.disabled() != after.disabled()) {
            words.add(after.disabled() ? "disabled" : "enabled");
        }
        if (!before.roles().equals(after.roles()) || !before.duties().equals(after.duties())) {
            words.add(described(after));
        }
        return String.join("; ", words);
    }

    private static ProblemException unknown(String name) {
        return new ProblemException(
                HttpStatus.NOT_FOUND, "There is no user %s.".formatted(Quoted.of(name)));
    }

    @DeleteMapping("/{name}")
    ResponseEntity<Void> remove(@PathVariable String name, @AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.ACCESS);
        if (name.equals(actor.name())) {
            throw new ProblemException(HttpStatus.CONFLICT, "You cannot remove yourself.");
        }
        engine.write(transaction -> {
            var access = engine.storage().access();
            if (access.user(transaction, name).isEmpty()) {
                throw unknown(name);
            }
            access.removeUser(transaction, name);
            log.note(transaction, actor, "user removed", name, "");
            return true;
        });
        return ResponseEntity.noContent().build();
    }

    /** A change of one's own password. */
    record PasswordChange(
            @NotBlank String current, @NotBlank @Size(min = 8, max = 200) String next) {}

    /** Changes one's own password, which ends every open session. */
    @PostMapping("/me/password")
    ResponseEntity<Void> changePassword(
            @Valid @RequestBody PasswordChange body, @AuthenticationPrincipal Actor actor) {
        // Hashed before: whoever writes would wait for it.
        var stored =
                engine.read(session -> engine.storage().access().user(session, actor.name()))
                        .orElseThrow(() -> unknown(actor.name()));
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
