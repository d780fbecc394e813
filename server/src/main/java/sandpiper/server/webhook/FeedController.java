package sandpiper.server.webhook;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.event.Event;
import sandpiper.model.release.EventType;
import sandpiper.model.release.ServiceType;
import sandpiper.server.json.JsonText;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.service.Cursors;
import sandpiper.server.service.ReleaseChoice;
import sandpiper.server.service.RevisionParameter;
import sandpiper.server.traffic.CallNotes;

/**
 * The events a service publishes, for those who cannot be called: read from a cursor on, as often
 * as one likes.
 */
@RestController
class FeedController {
    private static final int USUAL = 100;
    private static final int MOST = 500;

    private final Engine engine;
    private final Cursors cursors;

    FeedController(Engine engine, Cursors cursors) {
        this.engine = engine;
        this.cursors = cursors;
    }

    /**
     * A page of events, oldest first. Without {@code after} it begins with the oldest that is kept;
     * {@code after=now} gives nothing but the cursor of this moment.
     */
    @GetMapping(Protocol.REST_AT + "{service:[a-z0-9-]+}/v{version:\\d{1,3}}/events")
    ResponseEntity<String> events(
            @PathVariable String service,
            @PathVariable int version,
            @RequestParam(required = false) @Nullable String after,
            @RequestParam(defaultValue = "" + USUAL) int limit,
            @AuthenticationPrincipal Actor actor) {
        var live = engine.live();
        var type =
                ReleaseChoice.service(
                        live.release(),
                        actor,
                        service,
                        version,
                        found -> !found.events().isEmpty(),
                        " with events");
        CallNotes.called(
                service,
                version,
                RevisionParameter.NEWEST,
                ServiceType.EVENTS,
                "read",
                "Events",
                actor.name());
        if (!actor.may(service, ServiceType.EVENTS, "read")) {
            throw new ProblemException(
                    HttpStatus.FORBIDDEN, "The events of this service are not granted to you.");
        }
        if (limit < 1 || limit > MOST) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST, "limit must be 1 to %d.".formatted(MOST));
        }
        var fingerprint = "events %s v%d".formatted(service, version);
        long place = place(fingerprint, after);
        var found =
                "now".equals(after)
                        ? List.<Event>of()
                        : engine.deliveries()
                                .published(
                                        place,
                                        type.events().stream().map(EventType::name).toList(),
                                        limit);
        long reached = found.isEmpty() ? place : found.getLast().number();
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put(
                "events",
                found.stream().map(event -> CloudEvents.of(live.release(), event)).toList());
        body.put("next", cursors.write(fingerprint, List.of(reached)));
        body.put("more", found.size() == limit);
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .body(JsonText.write((Map<String, ?>) body));
    }

    private long place(String fingerprint, @Nullable String after) {
        if (after == null || after.isBlank()) {
            return 0;
        }
        if (after.equals("now")) {
            return engine.deliveries().newest();
        }
        var read = cursors.read(fingerprint, after);
        return read != null && read.getFirst() instanceof Long number ? number : 0;
    }
}
