package sandpiper.server.security;

import io.github.bucket4j.Bandwidth;
import io.github.bucket4j.Bucket;
import io.micrometer.core.instrument.MeterRegistry;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiConsumer;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import sandpiper.engine.access.Actor;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.settings.Rehearsed;
import sandpiper.server.settings.Settings;

/**
 * How often clients may call. Answers say where a client stands, as the draft "RateLimit header
 * fields for HTTP" of the IETF has it. People who try a service are not counted.
 */
@Component
public class RateLimits {
    private static final Duration WINDOW = Duration.ofMinutes(1);

    private final int usual;

    /** On a copy what was called in days is played in minutes. */
    private final boolean limiting;

    private final MeterRegistry meters;
    private final Map<String, Limited> clients = new ConcurrentHashMap<>();

    private record Limited(int callsPerMinute, Bucket bucket) {
        static Limited to(int callsPerMinute) {
            var bandwidth =
                    Bandwidth.builder()
                            .capacity(callsPerMinute)
                            .refillGreedy(callsPerMinute, WINDOW)
                            .build();
            return new Limited(callsPerMinute, Bucket.builder().addLimit(bandwidth).build());
        }
    }

    @Autowired
    RateLimits(Settings settings, MeterRegistry meters, Optional<Rehearsed> rehearsed) {
        this(settings.limits().callsPerMinute(), meters, rehearsed.isEmpty());
    }

    /** {@code usual} calls a minute for clients without a limit of their own; 0 for any number. */
    RateLimits(int usual, MeterRegistry meters) {
        this(usual, meters, true);
    }

    private RateLimits(int usual, MeterRegistry meters, boolean limiting) {
        this.usual = usual;
        this.meters = meters;
        this.limiting = limiting;
    }

    /** Keeps a client's limit in mind; 0 for the usual one. */
    void keep(String client, int callsPerMinute) {
        int limit = callsPerMinute == 0 ? usual : callsPerMinute;
        if (limit == 0 || !limiting) {
            clients.remove(client);
        } else {
            clients.compute(
                    client,
                    (_, known) ->
                            known != null && known.callsPerMinute() == limit
                                    ? known
                                    : Limited.to(limit));
        }
    }

    /**
     * Counts a call, and says in headers of its answer, by name and value, what is left.
     *
     * @throws ProblemException when the caller has called too often
     */
    public void count(Actor actor, BiConsumer<String, String> header) {
        var limited = actor.kind() == Actor.Kind.CLIENT ? clients.get(actor.name()) : null;
        if (limited == null) {
            return;
        }
        var probe = limited.bucket().tryConsumeAndReturnRemaining(1);
        header.accept(
                "RateLimit-Policy",
                "\"client\";q=%d;w=%d".formatted(limited.callsPerMinute(), WINDOW.toSeconds()));
        header.accept(
                "RateLimit",
                "\"client\";r=%d;t=%d"
                        .formatted(
                                probe.getRemainingTokens(),
                                seconds(probe.getNanosToWaitForReset())));
        if (!probe.isConsumed()) {
            long wait = seconds(probe.getNanosToWaitForRefill());
            header.accept(HttpHeaders.RETRY_AFTER, String.valueOf(wait));
            meters.counter("sandpiper.calls.limited", "client", actor.name()).increment();
            throw new ProblemException(
                    HttpStatus.TOO_MANY_REQUESTS,
                    "%s may call %,d times a minute; go on in %d s."
                            .formatted(actor.name(), limited.callsPerMinute(), wait));
        }
    }

    /**
     * Counts the rest of a call that holds several; the first is counted by {@link #count}.
     *
     * @throws ProblemException when they are more than the caller has left; none of them is done
     */
    public void countRest(Actor actor, int calls) {
        var limited = actor.kind() == Actor.Kind.CLIENT ? clients.get(actor.name()) : null;
        if (limited == null || calls < 2) {
            return;
        }
        if (!limited.bucket().tryConsume(calls - 1L)) {
            meters.counter("sandpiper.calls.limited", "client", actor.name()).increment();
            throw new ProblemException(
                    HttpStatus.TOO_MANY_REQUESTS,
                    "%s may call %,d times a minute, and this counts as %,d calls; send fewer, or later. Nothing was done."
                            .formatted(actor.name(), limited.callsPerMinute(), calls));
        }
    }

    /** Rounded up, so that nobody comes back too early. */
    private static long seconds(long nanos) {
        return Math.ceilDiv(nanos, 1_000_000_000L);
    }
}
