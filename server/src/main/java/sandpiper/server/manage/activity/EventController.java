package sandpiper.server.manage.activity;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.event.Delivery;
import sandpiper.engine.event.Event;
import sandpiper.engine.port.EventStorage.Delivered;
import sandpiper.engine.port.EventStorage.DeliveryFilter;
import sandpiper.engine.port.EventStorage.Try;
import sandpiper.engine.port.RunStorage;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.problem.ProblemException;

/** What has happened, who was told of it, and what functions, handlers and schedules did. */
@RestController
@RequestMapping("/manage/v1")
public class EventController {
    private static final int HIGHEST_LIMIT = 500;

    private final Engine engine;

    EventController(Engine engine) {
        this.engine = engine;
    }

    /** An event that was raised; without the values of records for those who do not see these. */
    record RaisedEventView(
            String id,
            String name,
            @Nullable String object,
            @Nullable String key,
            String at,
            String by,
            String via,
            Map<String, @Nullable Object> data) {
        static RaisedEventView of(Event event, boolean shown) {
            return new RaisedEventView(
                    event.id().toString(),
                    event.name(),
                    event.object(),
                    shown ? event.key() : null,
                    event.at().toString(),
                    event.by(),
                    event.via(),
                    shown ? event.data() : Map.of());
        }
    }

    /**
     * An event on its way to one of those who hear it.
     *
     * @param target {@code handler Stay.lookOverBerth}, {@code webhook bookkeeping}
     * @param due when it is tried next, or {@code null} when it is over
     * @param trace the account of the last try, or {@code null}
     */
    record DeliveryView(
            long number,
            RaisedEventView event,
            String target,
            String state,
            int tries,
            @Nullable String due,
            @Nullable String doneAt,
            String said,
            @Nullable String trace) {
        static DeliveryView of(Delivered delivered, boolean shown) {
            var delivery = delivered.delivery();
            boolean waits = delivery.state() == Delivery.State.WAITING;
            var doneAt = delivery.doneAt();
            var trace = delivery.trace();
            return new DeliveryView(
                    delivery.number(),
                    RaisedEventView.of(delivered.event(), shown),
                    delivery.target().written(),
                    delivery.state().name().toLowerCase(Locale.ROOT),
                    delivery.tries(),
                    waits ? delivery.due().toString() : null,
                    doneAt == null ? null : doneAt.toString(),
                    shown ? delivery.said() : "",
                    trace == null ? null : trace.toString());
        }
    }

    /** One try to call a webhook. */
    record TryView(String at, long millis, int status, String said, String request, String answer) {
        static TryView of(Try one, boolean shown) {
            return new TryView(
                    one.at().toString(),
                    one.millis(),
                    one.status(),
                    shown ? one.said() : "",
                    shown ? one.request() : "",
                    shown ? one.answer() : "");
        }
    }

    /** A delivery with its tries, newest first. */
    record DeliveryDetail(DeliveryView delivery, List<TryView> tries) {}

    /** How deliveries stand. */
    record DeliveryCounts(long waiting, long parked) {}

    /** How many deliveries are tried again. */
    record Redelivered(int count) {}

    /** One run of a function, handler or schedule. */
    record RunView(
            String at,
            String kind,
            String name,
            String object,
            String key,
            boolean done,
            String said,
            double millis,
            String by,
            String via,
            @Nullable String trace) {
        static RunView of(RunStorage.Run run, boolean shown) {
            var trace = run.trace();
            return new RunView(
                    run.at().toString(),
                    run.kind(),
                    run.name(),
                    run.object(),
                    shown ? run.key() : "",
                    run.done(),
                    shown ? run.said() : "",
                    run.micros() / 1_000.0,
                    run.by(),
                    run.via(),
                    trace == null ? null : trace.toString());
        }
    }

    private static void require(Actor actor) {
        if (!actor.has(Duty.OPERATE) && !actor.has(Duty.DESIGN)) {
            throw new ProblemException(
                    HttpStatus.FORBIDDEN, "Your duties do not include operate or design.");
        }
    }

    /** Whether somebody sees the values that events and messages carry. */
    private static boolean isShown(Actor actor) {
        return actor.has(Duty.OPERATE) || actor.seesEverything();
    }

    private static int bounded(int limit) {
        return Math.clamp(limit, 1, HIGHEST_LIMIT);
    }

    @Operation(summary = "List events, newest first")
    @GetMapping("/events")
    List<RaisedEventView> events(
            @RequestParam(defaultValue = "") String search,
            @RequestParam(defaultValue = "50") int limit,
            @AuthenticationPrincipal Actor actor) {
        require(actor);
        return engine.deliveries().latest(search, bounded(limit)).stream()
                .map(event -> RaisedEventView.of(event, isShown(actor)))
                .toList();
    }

    /** Deliveries, newest first; {@code target} as a delivery has it. */
    @Operation(summary = "Deliveries, newest first")
    @GetMapping("/deliveries")
    List<DeliveryView> deliveries(
            @RequestParam(defaultValue = "") String target,
            @RequestParam(required = false) @Nullable String state,
            @RequestParam(defaultValue = "") String search,
            @RequestParam(defaultValue = "50") int limit,
            @AuthenticationPrincipal Actor actor) {
        require(actor);
        return engine
                .deliveries()
                .deliveries(new DeliveryFilter(target, state(state), search, bounded(limit)))
                .stream()
                .map(delivery -> DeliveryView.of(delivery, isShown(actor)))
                .toList();
    }

    private static Delivery.@Nullable State state(@Nullable String text) {
        if (text == null || text.isBlank()) {
            return null;
        }
        for (var state : Delivery.State.values()) {
            if (state.name().equalsIgnoreCase(text)) {
                return state;
            }
        }
        throw new ProblemException(
                HttpStatus.BAD_REQUEST, "state must be waiting, done or parked.");
    }

    @Operation(summary = "Count deliveries by state")
    @GetMapping("/deliveries/counts")
    DeliveryCounts counts(@AuthenticationPrincipal Actor actor) {
        require(actor);
        return new DeliveryCounts(engine.deliveries().waiting(), engine.deliveries().parked());
    }

    @Operation(summary = "Show a delivery with its tries")
    @GetMapping("/deliveries/{number}")
    DeliveryDetail delivery(@PathVariable long number, @AuthenticationPrincipal Actor actor) {
        require(actor);
        return engine.deliveries()
                .delivery(number)
                .map(one ->
                        new DeliveryDetail(
                                DeliveryView.of(one, isShown(actor)),
                                engine.deliveries().tries(number).stream()
                                        .map(tried -> TryView.of(tried, isShown(actor)))
                                        .toList()))
                .orElseThrow(() -> unknown(number));
    }

    private static ProblemException unknown(long number) {
        return new ProblemException(
                HttpStatus.NOT_FOUND, "There is no delivery %d.".formatted(number));
    }

    /** Tries one again at once. */
    @Operation(summary = "Tries one again at once")
    @PostMapping("/deliveries/{number}/redeliver")
    Redelivered redeliver(@PathVariable long number, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.OPERATE);
        if (engine.deliveries().redeliver(number).isEmpty()) {
            throw unknown(number);
        }
        return new Redelivered(1);
    }

    /** Tries all again that were given up, to one target or to all. */
    @Operation(summary = "Tries all again that were given up, to one target or to all")
    @PostMapping("/deliveries/redeliver")
    Redelivered redeliverAll(
            @RequestParam(defaultValue = "") String target, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.OPERATE);
        return new Redelivered(engine.deliveries().redeliverAll(target));
    }

    /** Runs, newest first. */
    @Operation(summary = "Runs, newest first")
    @GetMapping("/runs")
    List<RunView> runs(
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "") String key,
            @RequestParam(required = false) @Nullable Boolean done,
            @RequestParam(defaultValue = "50") int limit,
            @AuthenticationPrincipal Actor actor) {
        require(actor);
        return engine
                .deliveries()
                .runs(new RunStorage.RunFilter(name, key, done, bounded(limit)))
                .stream()
                .map(run -> RunView.of(run, isShown(actor)))
                .toList();
    }
}
