package sandpiper.server.manage.access;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
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
import sandpiper.engine.access.StoredClient;
import sandpiper.engine.access.StoredSecret;
import sandpiper.engine.accounts.Clients;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.security.AccessTokens;
import sandpiper.server.security.SecretCipher;
import sandpiper.server.security.Secrets;

/** Clients: outside systems with what they may call. */
@RestController
@RequestMapping("/manage/v1/clients")
public class ClientController {
    private final Engine engine;
    private final SecretCipher seal;

    private final PasswordEncoder passwords;

    private final AccessTokens tokens;

    ClientController(
            Engine engine, SecretCipher seal, PasswordEncoder passwords, AccessTokens tokens) {
        this.tokens = tokens;
        this.engine = engine;
        this.passwords = passwords;
        this.seal = seal;
    }

    /**
     * An outside system. Each grant is {@code service/resource/operation}, with {@code *} for all,
     * and may have {@code where} and a condition behind it.
     *
     * @param previousUntil how long the secret before is right as well, or {@code null}
     * @param disabled whether it may do nothing for now
     * @param callsPerMinute how often it may call; 0 for what is usual in this instance
     * @param digests whether it can prove with digests that it knows its secret
     */
    record ClientView(
            String name,
            String label,
            List<String> grants,
            String createdAt,
            @Nullable String lastUsed,
            @Nullable String previousUntil,
            boolean disabled,
            int callsPerMinute,
            boolean digests) {
        static ClientView of(StoredClient client, Instant now) {
            var until = client.previousUntil();
            return new ClientView(
                    client.name(),
                    client.label(),
                    client.grants(),
                    client.createdAt().toString(),
                    client.lastUsed() == null ? null : client.lastUsed().toString(),
                    until == null || until.isBefore(now) ? null : until.toString(),
                    client.disabled(),
                    client.callsPerMinute(),
                    client.secret().sealed() != null);
        }
    }

    /**
     * A client to be made. Without a secret one is made up.
     *
     * @param digests whether it signs in with password digests over SOAP, for which its secret is
     *     kept sealed
     */
    record NewClient(
            @NotBlank
                    @Pattern(
                            regexp = "[a-z0-9-]{2,60}",
                            message = "has 2 to 60 small letters, digits and hyphens")
                    String name,
            @Nullable @Size(max = 80) String label,
            @NotNull List<@Size(max = 2000) String> grants,
            @Nullable @Size(min = 12, max = 200) String secret,
            @Nullable @Min(0) @Max(MOST_CALLS) Integer callsPerMinute,
            @Nullable Boolean digests) {}

    /** A client with a secret just made, which is shown this once. */
    record MadeClient(ClientView client, String secret) {}

    /** What is changed of a client; what is absent stays. */
    record ClientChange(
            @Nullable @Size(max = 80) String label,
            @Nullable List<@Size(max = 2000) String> grants,
            @Nullable Boolean disabled,
            @Nullable @Min(0) @Max(MOST_CALLS) Integer callsPerMinute) {}

    /**
     * A new secret.
     *
     * @param overlapHours how long the one before is right as well, 24 when absent
     * @param digests see {@link NewClient}; as before when absent
     */
    record Rotation(@Nullable @Min(0) @Max(720) Integer overlapHours, @Nullable Boolean digests) {}

    private static final long MOST_CALLS = 1_000_000;

    private static final int USUAL_OVERLAP = 24;

    @Operation(summary = "List clients")
    @GetMapping
    List<ClientView> clients(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        return engine.accounts().clients().all().stream().map(this::view).toList();
    }

    private ClientView view(StoredClient client) {
        return ClientView.of(client, engine.clock().instant());
    }

    @Operation(summary = "Make a client; its secret is told once")
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    MadeClient make(@Valid @RequestBody NewClient body, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        check(body.grants());
        var secret = body.secret() == null ? Secrets.make() : body.secret();
        var client =
                StoredClient.made(
                        body.name(),
                        body.label() == null ? body.name() : body.label(),
                        kept(secret, body.secret() != null, Boolean.TRUE.equals(body.digests())),
                        body.grants(),
                        engine.clock().instant(),
                        body.callsPerMinute() == null ? 0 : body.callsPerMinute());
        engine.accounts().clients().add(actor, client);
        return new MadeClient(view(client), secret);
    }

    @Operation(summary = "Change a client")
    @PatchMapping("/{name}")
    ClientView change(
            @PathVariable String name,
            @Valid @RequestBody ClientChange body,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        if (body.grants() != null) {
            check(body.grants());
        }
        return view(
                update(
                        name,
                        actor,
                        "client changed",
                        described(body),
                        client ->
                                client.changed(
                                        body.label(),
                                        body.grants(),
                                        body.disabled(),
                                        body.callsPerMinute())));
    }

    private void check(List<String> grants) {
        new GrantChecks(engine.live(), engine.clock()).services("grants", grants).finish();
    }

    private static String described(ClientChange change) {
        var words = new ArrayList<String>();
        if (change.disabled() != null) {
            words.add(change.disabled() ? "disabled" : "enabled");
        }
        if (change.callsPerMinute() != null) {
            words.add(
                    change.callsPerMinute() == 0
                            ? "as many calls as usual"
                            : "%,d calls a minute".formatted(change.callsPerMinute()));
        }
        if (change.grants() != null) {
            words.add(Clients.described(change.grants()));
        }
        return String.join("; ", words);
    }

    @Operation(summary = "Give a client another secret")
    @PostMapping("/{name}/secret")
    MadeClient rotate(
            @PathVariable String name,
            @Valid @RequestBody Rotation body,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        var secret = Secrets.make();
        var hours = body.overlapHours() == null ? USUAL_OVERLAP : body.overlapHours();
        var until = engine.clock().instant().plus(Duration.ofHours(hours));
        return new MadeClient(
                view(
                        update(
                                name,
                                actor,
                                "secret rotated",
                                "the one before is right until " + until,
                                client ->
                                        client.rotated(
                                                kept(secret, false, digests(body, client)),
                                                until))),
                secret);
    }

    /** A secret that somebody chose can be guessed, so it is hashed slowly. */
    private StoredSecret kept(String secret, boolean chosen, boolean digests) {
        return new StoredSecret(
                chosen ? String.valueOf(passwords.encode(secret)) : Secrets.hash(secret),
                digests ? seal.seal(secret) : null);
    }

    private static boolean digests(Rotation rotation, StoredClient client) {
        return rotation.digests() == null ? client.secret().sealed() != null : rotation.digests();
    }

    private StoredClient update(
            String name,
            Actor actor,
            String what,
            String detail,
            UnaryOperator<StoredClient> change) {
        return engine.accounts().clients().change(actor, name, what, detail, change);
    }

    /**
     * A token to call services as a client.
     *
     * @param seconds how long it is good for
     */
    record TrialToken(String token, long seconds) {}

    /**
     * Lets whoever could give the client another secret call services as that client, to see what
     * it may do. It is noted like a new secret.
     */
    @Operation(
            summary =
                    "Lets whoever could give the client another secret call services as that"
                            + " client, to see what it may do")
    @PostMapping("/{name}/token")
    TrialToken token(@PathVariable String name, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        update(name, actor, "client tried", "with a token of its own", client -> client);
        return new TrialToken(tokens.issue(name), AccessTokens.LIFE.toSeconds());
    }

    @Operation(summary = "Remove a client")
    @DeleteMapping("/{name}")
    ResponseEntity<Void> remove(@PathVariable String name, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        engine.accounts().clients().remove(actor, name);
        return ResponseEntity.noContent().build();
    }
}
