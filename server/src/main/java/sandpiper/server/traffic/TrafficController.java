package sandpiper.server.traffic;

import io.micrometer.prometheusmetrics.PrometheusMeterRegistry;
import io.swagger.v3.oas.annotations.Operation;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.call.Called;
import sandpiper.engine.call.FailedCall;
import sandpiper.engine.call.Use;
import sandpiper.server.problem.ProblemException;

/** Shows how services are called, to people and to machines that watch. */
@RestController
public class TrafficController {
    private static final int FAILED = 50;
    private static final int MOST_DAYS = 400;

    private final Engine engine;
    private final Traffic traffic;
    private final PrometheusMeterRegistry meters;

    TrafficController(Engine engine, Traffic traffic, PrometheusMeterRegistry meters) {
        this.engine = engine;
        this.traffic = traffic;
        this.meters = meters;
    }

    /**
     * Calls of one kind.
     *
     * @param revision of the contract that the caller named; 0 when none
     * @param meanMillis how long one took on average, in milliseconds
     * @param slowestMillis how long the slowest took, in milliseconds
     */
    public record CallsView(
            String service,
            int version,
            int revision,
            String resource,
            String operation,
            String protocol,
            String caller,
            long calls,
            long errors,
            double meanMillis,
            double slowestMillis,
            String last) {}

    /** A call that failed; {@code trace} is empty when there is no account of it. */
    public record FailedView(
            String at,
            String service,
            int version,
            String resource,
            String operation,
            String protocol,
            String caller,
            int status,
            String message,
            String trace) {
        static FailedView of(FailedCall failed) {
            var called = failed.called();
            return new FailedView(
                    failed.at().toString(),
                    called.service(),
                    called.version(),
                    called.resource(),
                    called.operation(),
                    called.protocol(),
                    called.caller(),
                    failed.status(),
                    failed.message(),
                    failed.trace());
        }
    }

    /**
     * The calls of one day.
     *
     * @param day in UTC, as in 2026-05-01
     */
    public record DayView(String day, long calls, long errors) {}

    /**
     * The traffic of some days.
     *
     * @param byDay each of the days, the first first
     */
    public record TrafficView(
            int days, List<CallsView> calls, List<DayView> byDay, List<FailedView> failed) {}

    @Operation(summary = "How services were called")
    @GetMapping("/manage/v1/traffic")
    TrafficView traffic(
            @RequestParam(defaultValue = "7") int days, @AuthenticationPrincipal Actor actor) {
        require(actor);
        if (days < 1 || days > MOST_DAYS) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST, "days must be 1 to %d.".formatted(MOST_DAYS));
        }
        traffic.store();
        var first =
                LocalDate.ofInstant(engine.clock().instant(), ZoneOffset.UTC).minusDays(days - 1L);
        var known = engine.calls().since(first, FAILED);
        return new TrafficView(
                days,
                together(known.uses()),
                byDay(known.uses(), first, days),
                known.failed().stream().map(FailedView::of).toList());
    }

    private static List<DayView> byDay(List<Use> uses, LocalDate first, int days) {
        return first.datesUntil(first.plusDays(days))
                .map(day -> {
                    var own =
                            uses.stream()
                                    .filter(use -> use.day().equals(day))
                                    // What was asked of others is no call of ours.
                                    .filter(use -> !use.called().protocol().equals(Called.OUTGOING))
                                    .toList();
                    return new DayView(
                            day.toString(),
                            own.stream().mapToLong(Use::calls).sum(),
                            own.stream().mapToLong(Use::errors).sum());
                })
                .toList();
    }

    /** The days of each kind of call, together, most calls first. */
    private static List<CallsView> together(List<Use> uses) {
        var sums = new HashMap<Called, Use>();
        uses.forEach(use ->
                sums.merge(
                        use.called(),
                        use,
                        (one, other) ->
                                new Use(
                                        one.day(),
                                        one.called(),
                                        one.calls() + other.calls(),
                                        one.errors() + other.errors(),
                                        one.micros() + other.micros(),
                                        Math.max(one.slowest(), other.slowest()),
                                        one.last().isAfter(other.last())
                                                ? one.last()
                                                : other.last())));
        var views = new ArrayList<CallsView>();
        sums.values().stream()
                .sorted(Comparator.comparingLong(Use::calls).reversed())
                .forEach(use -> views.add(view(use)));
        return views;
    }

    private static CallsView view(Use use) {
        var called = use.called();
        return new CallsView(
                called.service(),
                called.version(),
                called.revision(),
                called.resource(),
                called.operation(),
                called.protocol(),
                called.caller(),
                use.calls(),
                use.errors(),
                Math.round(use.micros() / (double) use.calls() / 10) / 100.0,
                Math.round(use.slowest() / 10.0) / 100.0,
                use.last().toString());
    }

    /** Figures in the text format of Prometheus. */
    @Operation(summary = "Figures in the text format of Prometheus")
    @GetMapping(path = "/manage/v1/metrics", produces = "text/plain;version=0.0.4")
    String metrics(@AuthenticationPrincipal Actor actor) {
        require(actor);
        return meters.scrape();
    }

    private static void require(Actor actor) {
        if (!actor.has(Duty.AUDIT) && !actor.has(Duty.DESIGN)) {
            throw new ProblemException(
                    HttpStatus.FORBIDDEN, "Your duties include neither audit nor design.");
        }
    }
}
