package sandpiper.server.webhook;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
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
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.delivery.EventFilter;
import sandpiper.engine.event.Webhook;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.release.EventType;
import sandpiper.server.outgoing.Targets;
import sandpiper.server.problem.Problem.Wrong;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.SecretCipher;

/** Webhooks: who is told of which events. */
@RestController
@RequestMapping("/manage/v1/webhooks")
public class WebhookController {
    private static final String CODE = "SP4000";
    private static final int USUAL_OVERLAP = 24;

    private final Engine engine;
    private final SecretCipher seal;
    private final Targets targets;

    WebhookController(Engine engine, SecretCipher seal, Targets webhookTargets) {
        this.engine = engine;
        this.seal = seal;
        this.targets = webhookTargets;
    }

    /**
     * A webhook without its secret.
     *
     * @param filter a condition over what the events tell, or {@code null} for all of them
     * @param previousUntil until when messages are signed with the secret before as well, or {@code
     *     null}
     */
    record WebhookView(
            String name,
            String label,
            String address,
            List<String> events,
            @Nullable String filter,
            boolean disabled,
            @Nullable String previousUntil) {}

    /** A webhook to be made. */
    record NewWebhook(
            @NotBlank
                    @Pattern(
                            regexp = "[a-z0-9-]{2,60}",
                            message = "has 2 to 60 small letters, digits and hyphens")
                    String name,
            @Nullable @Size(max = 80) String label,
            @NotBlank @Size(max = 2000) String address,
            @NotNull @Size(min = 1, max = 200) List<@Size(max = 200) String> events,
            @Nullable @Size(max = 2000) String filter) {}

    /** A webhook with a secret just made, which is shown this once. */
    record MadeWebhook(WebhookView webhook, String secret) {}

    /** What is changed; what is absent stays, and an empty filter takes it away. */
    record WebhookChange(
            @Nullable @Size(max = 80) String label,
            @Nullable @Size(max = 2000) String address,
            @Nullable @Size(min = 1, max = 200) List<@Size(max = 200) String> events,
            @Nullable @Size(max = 2000) String filter,
            @Nullable Boolean disabled) {}

    /** A new secret; {@code overlapHours} 24 when absent. */
    record SecretRotation(@Nullable @Min(0) @Max(720) Integer overlapHours) {}

    /** A test on its way. */
    record Testing(UUID event) {}

    @Operation(summary = "List webhooks")
    @GetMapping
    List<WebhookView> webhooks(@AuthenticationPrincipal Actor actor) {
        require(actor);
        return engine.deliveries().webhooks().stream().map(this::view).toList();
    }

    private static void require(Actor actor) {
        if (!actor.has(Duty.OPERATE)) {
            throw new ProblemException(HttpStatus.FORBIDDEN, "Your duties do not include operate.");
        }
    }

    private WebhookView view(Webhook webhook) {
        var until = webhook.previousUntil();
        return new WebhookView(
                webhook.name(),
                webhook.label(),
                webhook.address(),
                webhook.events(),
                webhook.filter(),
                webhook.disabled(),
                until == null || until.isBefore(engine.clock().instant())
                        ? null
                        : until.toString());
    }

    private Webhook find(String name) {
        return engine.deliveries().webhooks().stream()
                .filter(one -> one.name().equals(name))
                .findFirst()
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND,
                                "There is no webhook %s.".formatted(Quoted.of(name))));
    }

    @Operation(summary = "Make a webhook")
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    MadeWebhook make(@Valid @RequestBody NewWebhook body, @AuthenticationPrincipal Actor actor) {
        require(actor);
        boolean taken =
                engine.deliveries().webhooks().stream()
                        .anyMatch(one -> one.name().equals(body.name()));
        if (taken) {
            throw new ProblemException(
                    HttpStatus.CONFLICT,
                    "There is a webhook %s already.".formatted(Quoted.of(body.name())));
        }
        var filter = blankAsNone(body.filter());
        check(body.address(), body.events(), filter);
        var secret = Signature.newSecret();
        var webhook =
                new Webhook(
                        body.name(),
                        body.label() == null ? body.name() : body.label(),
                        body.address(),
                        body.events(),
                        filter,
                        seal.seal(secret),
                        null,
                        null,
                        false);
        put(webhook, actor, "webhook made", webhook.address());
        return new MadeWebhook(view(webhook), secret);
    }

    private static @Nullable String blankAsNone(@Nullable String text) {
        return text == null || text.isBlank() ? null : text;
    }

    private void put(Webhook webhook, Actor actor, String what, String detail) {
        engine.deliveries().put(webhook);
        note(actor, what, webhook.name(), detail);
    }

    private void note(Actor actor, String what, String name, String detail) {
        engine.accounts().log().note(actor.name(), what, name, detail);
    }

    private void check(String address, List<String> events, @Nullable String filter) {
        var wrong = new ArrayList<Wrong>();
        try {
            targets.check(address);
        } catch (IllegalArgumentException e) {
            wrong.add(new Wrong(FaultPath.of("address"), CODE, String.valueOf(e.getMessage())));
        }
        var release = engine.live().release();
        var names = release.events().stream().map(EventType::name).toList();
        for (int i = 0; i < events.size(); i++) {
            var event = events.get(i);
            if (!names.contains(event)) {
                wrong.add(
                        new Wrong(
                                FaultPath.of("events").then(i),
                                CODE,
                                "There is no event %s.%s"
                                        .formatted(
                                                Quoted.of(event),
                                                Nearest.to(event, names)
                                                        .map(near -> " Did you mean " + near + "?")
                                                        .orElse(""))));
            }
        }
        if (EventFilter.check(release, events, filter)
                instanceof EventFilter.Checked.Wrong(var problems)) {
            problems.forEach(problem ->
                    wrong.add(
                            new Wrong(
                                    FaultPath.of("filter"),
                                    problem.code().id(),
                                    problem.message())));
        }
        if (!wrong.isEmpty()) {
            throw new ProblemException(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    wrong.size() == 1
                            ? wrong.getFirst().message()
                            : "%d things are wrong; each is listed with its place."
                                    .formatted(wrong.size()),
                    wrong);
        }
    }

    @Operation(summary = "Change a webhook")
    @PatchMapping("/{name}")
    WebhookView change(
            @PathVariable String name,
            @Valid @RequestBody WebhookChange body,
            @AuthenticationPrincipal Actor actor) {
        require(actor);
        var there = find(name);
        var filter = body.filter() == null ? there.filter() : blankAsNone(body.filter());
        var changed =
                new Webhook(
                        name,
                        body.label() == null ? there.label() : body.label(),
                        body.address() == null ? there.address() : body.address(),
                        body.events() == null ? there.events() : body.events(),
                        filter,
                        there.sealedSecret(),
                        there.previousSecret(),
                        there.previousUntil(),
                        body.disabled() == null ? there.disabled() : body.disabled());
        check(changed.address(), changed.events(), changed.filter());
        put(
                changed,
                actor,
                changed.disabled() == there.disabled()
                        ? "webhook changed"
                        : changed.disabled() ? "webhook disabled" : "webhook enabled",
                changed.address());
        return view(changed);
    }

    /** A new secret; for a while messages are signed with the one before as well. */
    @Operation(summary = "A new secret")
    @PostMapping("/{name}/rotate")
    MadeWebhook rotate(
            @PathVariable String name,
            @Valid @RequestBody SecretRotation body,
            @AuthenticationPrincipal Actor actor) {
        require(actor);
        var there = find(name);
        int hours = body.overlapHours() == null ? USUAL_OVERLAP : body.overlapHours();
        var secret = Signature.newSecret();
        var rotated =
                new Webhook(
                        name,
                        there.label(),
                        there.address(),
                        there.events(),
                        there.filter(),
                        seal.seal(secret),
                        there.sealedSecret(),
                        engine.clock().instant().plus(Duration.ofHours(hours)),
                        there.disabled());
        put(rotated, actor, "webhook secret rotated", "overlap %d h".formatted(hours));
        return new MadeWebhook(view(rotated), secret);
    }

    /** Sends a test to a webhook; what came of it is among its deliveries. */
    @Operation(summary = "Sends a test to a webhook")
    @PostMapping("/{name}/test")
    Testing test(@PathVariable String name, @AuthenticationPrincipal Actor actor) {
        require(actor);
        return new Testing(engine.deliveries().test(find(name), actor.name()));
    }

    @Operation(summary = "Remove a webhook")
    @DeleteMapping("/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String name, @AuthenticationPrincipal Actor actor) {
        require(actor);
        find(name);
        engine.deliveries().removeWebhook(name);
        note(actor, "webhook removed", name, "");
    }
}
