package sandpiper.server.manage.outside;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.outside.Reaches;
import sandpiper.engine.outside.Reply;
import sandpiper.engine.port.OutsideStorage.Reach;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.connection.ConnectionType;
import sandpiper.model.connection.LookupType;
import sandpiper.model.release.Release;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.manage.outside.ConnectionView.ReachView;
import sandpiper.server.outgoing.Targets;
import sandpiper.server.outside.OutsideAsker;
import sandpiper.server.problem.Problem.Wrong;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.SecretCipher;

/** Connections: what they offer, how they are reached, and what they answer. */
@RestController
@RequestMapping("/manage/v1")
public class ConnectionController {
    private static final String CODE = "SP4000";

    /** Entries that a pick list shows. */
    private static final int SHOWN = 50;

    private final Engine engine;
    private final OutsideAsker asker;
    private final SecretCipher cipher;
    private final Targets targets;

    ConnectionController(
            Engine engine, OutsideAsker asker, SecretCipher cipher, Targets connectionTargets) {
        this.engine = engine;
        this.asker = asker;
        this.cipher = cipher;
        this.targets = connectionTargets;
    }

    /**
     * How a service is reached from now on.
     *
     * @param user of Basic, or the client of client credentials
     * @param secret the password, token or client's secret; absent to keep the one there is
     * @param tokenAddress where access tokens are had, for client credentials
     * @param scope that is asked for with a token
     */
    record ReachChange(
            @NotNull @Size(max = 2000) String address,
            @NotNull
                    @Pattern(
                            regexp = "none|basic|bearer|client-credentials",
                            message = "is none, basic, bearer or client-credentials")
                    String scheme,
            @Nullable @Size(max = 200) String user,
            @Nullable @Size(max = 4000) String secret,
            @Nullable @Size(max = 2000) String tokenAddress,
            @Nullable @Size(max = 500) String scope) {}

    /** A code and what it is called outside. */
    record LookupEntry(String code, String label) {}

    /**
     * What a pick list offers.
     *
     * @param more whether there are more than are shown
     * @param message why there is nothing, or {@code null}
     */
    record LookupEntries(List<LookupEntry> entries, boolean more, @Nullable String message) {}

    /**
     * What is tried: values by the names of parameters; {@code search} or {@code code} of a lookup.
     */
    record OutsideTry(@NotNull Map<String, @Nullable Object> values) {}

    /**
     * What came of a try.
     *
     * @param answer what was answered, as far as it is used; {@code null} when nothing was
     * @param message why there is no answer, or {@code null}
     */
    record OutsideTried(long millis, @Nullable Object answer, @Nullable String message) {}

    @Operation(summary = "List connections")
    @GetMapping("/connections")
    List<ConnectionView> connections(@AuthenticationPrincipal Actor actor) {
        requireSight(actor);
        var reaches =
                engine.reaches().all().stream()
                        .collect(Collectors.toMap(Reach::setting, Function.identity()));
        var live = ConnectionType.of(engine.live().release());
        var shown = new LinkedHashMap<String, ConnectionType>();
        live.forEach(one -> shown.put(one.name(), one));
        if (actor.has(Duty.DESIGN)) {
            shown.clear();
            ConnectionType.of(draft()).forEach(one -> shown.put(one.name(), one));
            live.forEach(one -> shown.putIfAbsent(one.name(), one));
        }
        return shown.values().stream()
                .map(one ->
                        ConnectionView.of(
                                one,
                                live.stream().anyMatch(other -> other.name().equals(one.name())),
                                asker.isLeftAlone(one.setting()),
                                reaches.get(one.setting())))
                .toList();
    }

    private Release draft() {
        return engine.drafts().check().outline();
    }

    private static void requireSight(Actor actor) {
        if (!actor.has(Duty.DESIGN) && !actor.has(Duty.OPERATE)) {
            throw new ProblemException(
                    HttpStatus.FORBIDDEN, "Your duties include neither design nor operate.");
        }
    }

    @Operation(summary = "Say how a service outside is reached")
    @PutMapping("/connections/reaches/{setting}")
    ReachView put(
            @PathVariable String setting,
            @Valid @RequestBody ReachChange body,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.OPERATE);
        var there = engine.reaches().find(setting);
        check(setting, body, there.isPresent());
        boolean needsSecret = !body.scheme().equals("none");
        var secret = body.secret();
        var kept =
                there.filter(one -> one.scheme().equals(body.scheme()))
                        .map(Reach::sealedSecret)
                        .orElse(null);
        if (needsSecret && (secret == null || secret.isEmpty()) && kept == null) {
            throw wrong("secret", "A secret is needed with %s.".formatted(body.scheme()));
        }
        if (secret == null && kept != null && !sameHost(there.orElseThrow(), body)) {
            // Otherwise whoever may set an address could have the secret sent to themselves.
            throw wrong(
                    "secret",
                    "The address leads to another host, so the secret must be given again.");
        }
        var reach =
                engine.reaches()
                        .put(
                                setting,
                                new Reaches.Given(
                                        body.address().strip(),
                                        body.scheme(),
                                        text(body.user()),
                                        !needsSecret
                                                ? null
                                                : secret == null || secret.isEmpty()
                                                        ? kept
                                                        : cipher.seal(secret),
                                        text(body.tokenAddress()),
                                        text(body.scope())),
                                actor.name());
        asker.forget(setting);
        return ReachView.of(reach);
    }

    private static String text(@Nullable String text) {
        return text == null ? "" : text.strip();
    }

    private static boolean sameHost(Reach there, ReachChange body) {
        return origin(there.address()).equals(origin(body.address().strip()))
                && there.tokenAddress().equals(text(body.tokenAddress()));
    }

    private static String origin(String address) {
        var uri = java.net.URI.create(address);
        return "%s://%s:%d".formatted(uri.getScheme(), uri.getHost(), uri.getPort());
    }

    private void check(String setting, ReachChange body, boolean there) {
        var known =
                java.util.stream.Stream.concat(
                                ConnectionType.of(draft()).stream(),
                                ConnectionType.of(engine.live().release()).stream())
                        .map(ConnectionType::setting)
                        .distinct()
                        .toList();
        if (!there && !known.contains(setting)) {
            throw new ProblemException(
                    HttpStatus.NOT_FOUND,
                    "No connection takes its address from the setting %s.%s"
                            .formatted(
                                    Quoted.of(setting),
                                    Nearest.to(setting, known)
                                            .map(near -> " Did you mean " + near + "?")
                                            .orElse("")));
        }
        requireTarget("address", body.address().strip());
        var wrong = new ArrayList<Wrong>();
        boolean named = !text(body.user()).isEmpty();
        if (List.of("basic", "client-credentials").contains(body.scheme()) && !named) {
            wrong.add(wrongAt("user", "A name is needed with %s.".formatted(body.scheme())));
        }
        if (body.scheme().equals("basic") && text(body.user()).contains(":")) {
            wrong.add(wrongAt("user", "The name of Basic must have no colon."));
        }
        if (!wrong.isEmpty()) {
            throw new ProblemException(
                    HttpStatus.UNPROCESSABLE_CONTENT, wrong.getFirst().message(), wrong);
        }
        if (body.scheme().equals("client-credentials")) {
            requireTarget("tokenAddress", text(body.tokenAddress()));
        }
    }

    private void requireTarget(String field, String address) {
        try {
            targets.check(address);
        } catch (IllegalArgumentException e) {
            throw wrong(field, String.valueOf(e.getMessage()));
        }
    }

    private static Wrong wrongAt(String field, String message) {
        return new Wrong(FaultPath.of(field), CODE, message);
    }

    private static ProblemException wrong(String field, String message) {
        return new ProblemException(
                HttpStatus.UNPROCESSABLE_CONTENT, message, List.of(wrongAt(field, message)));
    }

    @Operation(summary = "Forget how a service outside is reached")
    @DeleteMapping("/connections/reaches/{setting}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String setting, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.OPERATE);
        if (!engine.reaches().remove(setting, actor.name())) {
            throw new ProblemException(
                    HttpStatus.NOT_FOUND,
                    "Nothing is said of the setting %s.".formatted(Quoted.of(setting)));
        }
        asker.forget(setting);
    }

    /** Asks what a connection of the draft, or of the live release, offers, whatever is kept. */
    @Operation(summary = "Try a lookup or call of a connection")
    @PostMapping("/connections/{name}/{what}/try")
    OutsideTried tryOut(
            @PathVariable String name,
            @PathVariable String what,
            @Valid @RequestBody OutsideTry body,
            @AuthenticationPrincipal Actor actor) {
        requireSight(actor);
        var ask = new AskReading(connection(name, actor)).read(what, body.values());
        return answered(() -> engine.outside().tryOut(ask));
    }

    private ConnectionType connection(String name, Actor actor) {
        var release = actor.has(Duty.DESIGN) ? draft() : engine.live().release();
        return ConnectionType.find(release, name)
                .or(() -> ConnectionType.find(engine.live().release(), name))
                .orElseThrow(() -> {
                    var names =
                            ConnectionType.of(release).stream().map(ConnectionType::name).toList();
                    return new ProblemException(
                            HttpStatus.NOT_FOUND,
                            "There is no connection %s.%s"
                                    .formatted(
                                            Quoted.of(name),
                                            Nearest.to(name, names)
                                                    .map(near -> " Did you mean " + near + "?")
                                                    .orElse("")));
                });
    }

    static OutsideTried answered(java.util.function.Supplier<Reply> asking) {
        long start = System.nanoTime();
        var reply = asking.get();
        long millis = (System.nanoTime() - start) / 1_000_000;
        return switch (reply) {
            case Reply.Failure(var message, _) -> new OutsideTried(millis, null, message);
            case Reply.Answer(var plain) -> new OutsideTried(millis, plain, null);
        };
    }

    /** What can be chosen in a field whose codes come from outside. */
    @Operation(summary = "List what a lookup offers")
    @GetMapping("/lookups/{connection}/{lookup}")
    LookupEntries entries(
            @PathVariable("connection") String name,
            @PathVariable("lookup") String lookupName,
            @RequestParam(defaultValue = "") @Size(max = 200) String search,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.requireRecords(actor);
        var connection = ConnectionType.find(engine.live().release(), name);
        var lookup = connection.flatMap(one -> one.lookup(lookupName));
        if (lookup.isEmpty()) {
            throw new ProblemException(
                    HttpStatus.NOT_FOUND,
                    "There is no lookup %s.".formatted(Quoted.of(name + "." + lookupName)));
        }
        return shown(
                lookup.get(),
                engine.outside().entries(connection.orElseThrow(), lookup.get(), search.strip()),
                search.strip());
    }

    private static LookupEntries shown(LookupType lookup, Reply reply, String search) {
        return switch (reply) {
            case Reply.Failure(var message, _) -> new LookupEntries(List.of(), false, message);
            case Reply.Answer(var plain) -> {
                var fitting =
                        ((List<?>) plain)
                                .stream()
                                        .map(Reply.Entry.class::cast)
                                        .filter(one -> lookup.search() != null || fits(one, search))
                                        .toList();
                yield new LookupEntries(
                        fitting.stream()
                                .limit(SHOWN)
                                .map(one -> new LookupEntry(one.code(), one.label()))
                                .toList(),
                        fitting.size() > SHOWN,
                        null);
            }
        };
    }

    private static boolean fits(Reply.Entry entry, String search) {
        var wanted = search.toLowerCase(java.util.Locale.ROOT);
        return entry.code().toLowerCase(java.util.Locale.ROOT).contains(wanted)
                || entry.label().toLowerCase(java.util.Locale.ROOT).contains(wanted);
    }
}
