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
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.port.AccessStorage.StoredClient;
import sandpiper.engine.port.AccessStorage.StoredUser;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.Secrets;

/** Users and clients. */
@RestController
@RequestMapping("/manage/v1")
class AccessController {
    private static final String GRANT =
            "(\\*|[a-z0-9-]+)/(\\*|[a-z0-9-]+)/(\\*|create|read|update|query|remove)";

    private final Engine engine;
    private final PasswordEncoder passwords;

    AccessController(Engine engine, PasswordEncoder passwords) {
        this.engine = engine;
        this.passwords = passwords;
    }

    /**
     * An outside system. Each grant is {@code service/resource/operation}, with {@code *} for all.
     */
    record ClientView(
            String name,
            String label,
            List<String> grants,
            String createdAt,
            @Nullable String lastUsed) {
        static ClientView of(StoredClient client) {
            return new ClientView(
                    client.name(),
                    client.label(),
                    client.grants(),
                    client.createdAt().toString(),
                    client.lastUsed() == null ? null : client.lastUsed().toString());
        }
    }

    /** A client to be made. Without a secret one is made up. */
    record NewClient(
            @NotBlank
                    @Pattern(
                            regexp = "[a-z0-9-]{2,60}",
                            message = "has 2 to 60 small letters, digits and hyphens")
                    String name,
            @Nullable @Size(max = 80) String label,
            @NotNull
                    List<
                                    @Pattern(
                                            regexp = GRANT,
                                            message =
                                                    "is service/resource/operation, with * for all")
                                    String>
                            grants,
            @Nullable @Size(min = 12, max = 200) String secret) {}

    /** A client just made; the secret is shown this once. */
    record MadeClient(ClientView client, String secret) {}

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

    @GetMapping("/clients")
    List<ClientView> clients(@AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.ACCESS);
        return engine.read(session -> engine.storage().access().clients(session)).stream()
                .map(ClientView::of)
                .toList();
    }

    @PostMapping("/clients")
    @ResponseStatus(HttpStatus.CREATED)
    MadeClient makeClient(
            @Valid @RequestBody NewClient body, @AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.ACCESS);
        var secret = body.secret() == null ? Secrets.make() : body.secret();
        var client =
                new StoredClient(
                        body.name(),
                        body.label() == null ? body.name() : body.label(),
                        Secrets.hash(secret),
                        body.grants(),
                        engine.clock().instant(),
                        null);
        engine.write(transaction -> {
            if (engine.storage().access().client(transaction, body.name()).isPresent()) {
                throw new ProblemException(
                        HttpStatus.CONFLICT,
                        "There is a client %s already.".formatted(body.name()));
            }
            engine.storage().access().putClient(transaction, client);
            return true;
        });
        return new MadeClient(ClientView.of(client), secret);
    }

    @DeleteMapping("/clients/{name}")
    ResponseEntity<Void> removeClient(
            @PathVariable String name, @AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.ACCESS);
        engine.write(transaction -> {
            engine.storage().access().removeClient(transaction, name);
            return true;
        });
        return ResponseEntity.noContent().build();
    }

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
