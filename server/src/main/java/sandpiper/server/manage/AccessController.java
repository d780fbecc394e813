package sandpiper.server.manage;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.port.AccessStorage.StoredUser;
import sandpiper.server.problem.ProblemException;

/** People who sign in to the console. */
@RestController
@RequestMapping("/manage/v1")
class AccessController {
    private final Engine engine;
    private final PasswordEncoder passwords;

    AccessController(Engine engine, PasswordEncoder passwords) {
        this.engine = engine;
        this.passwords = passwords;
    }

    /** A person. */
    record UserView(String name, String label, List<String> duties) {
        static UserView of(StoredUser user) {
            return new UserView(
                    user.name(),
                    user.label(),
                    user.duties().stream().map(duty -> duty.toLowerCase(Locale.ROOT)).toList());
        }
    }

    /** A person to be added. */
    record NewUser(
            @NotBlank
                    @Pattern(
                            regexp = "[a-z0-9.-]{2,60}",
                            message = "has 2 to 60 small letters, digits, points and hyphens")
                    String name,
            @Nullable @Size(max = 80) String label,
            @NotBlank @Size(min = 8, max = 200) String password,
            @NotNull List<Duty> duties) {}

    @GetMapping("/users")
    List<UserView> users(@AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.ACCESS);
        return engine.read(session -> engine.storage().access().users(session)).stream()
                .map(UserView::of)
                .toList();
    }

    @PostMapping("/users")
    @ResponseStatus(HttpStatus.CREATED)
    UserView makeUser(@Valid @RequestBody NewUser body, @AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.ACCESS);
        var user =
                new StoredUser(
                        body.name(),
                        body.label() == null ? body.name() : body.label(),
                        String.valueOf(passwords.encode(body.password())),
                        body.duties().stream().map(Duty::name).toList());
        engine.write(transaction -> {
            if (engine.storage().access().user(transaction, body.name()).isPresent()) {
                throw new ProblemException(
                        HttpStatus.CONFLICT, "There is a user %s already.".formatted(body.name()));
            }
            engine.storage().access().putUser(transaction, user);
            return true;
        });
        return UserView.of(user);
    }
}
