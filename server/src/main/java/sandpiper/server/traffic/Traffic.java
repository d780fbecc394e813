package sandpiper.server.traffic;

import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.Timer;
import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.call.Called;
import sandpiper.engine.call.FailedCall;
import sandpiper.engine.call.Use;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.port.StorageException;

/**
 * Adds up how services are called. Counts are kept in memory and stored every few seconds, so that
 * a call pays next to nothing; a crash loses the last seconds of them, never of data.
 */
@Component
public class Traffic {
    private static final Logger LOG = LoggerFactory.getLogger(Traffic.class);

    /** Kinds of calls, and failed calls, held until they are stored. */
    private static final int MOST_WAITING = 10_000;

    private static final int LONGEST_MESSAGE = 500;

    private final Engine engine;
    private final MeterRegistry meters;
    private final Map<Key, Sum> sums = new HashMap<>();
    private final List<FailedCall> failed = new ArrayList<>();

    Traffic(Engine engine, MeterRegistry meters) {
        this.engine = engine;
        this.meters = meters;
    }

    private final Map<TimerKey, Timer> timers = new ConcurrentHashMap<>();

    private record TimerKey(Called called, boolean wrong) {}

    private record Key(LocalDate day, Called called) {}

    private record Sum(long calls, long errors, long micros, long slowest, Instant last) {
        Sum and(Sum other) {
            return new Sum(
                    calls + other.calls,
                    errors + other.errors,
                    micros + other.micros,
                    Math.max(slowest, other.slowest),
                    other.last);
        }
    }

    /** Counts a call that was answered. */
    public void count(Called called, int status, Duration took, String said, String trace) {
        var now = engine.clock().instant();
        long micros = took.toNanos() / 1_000;
        boolean wrong = status >= 400;
        timers.computeIfAbsent(new TimerKey(called, wrong), this::timer).record(took);
        var key = new Key(LocalDate.ofInstant(now, ZoneOffset.UTC), called);
        synchronized (sums) {
            if (sums.size() < MOST_WAITING || sums.containsKey(key)) {
                sums.merge(key, new Sum(1, wrong ? 1 : 0, micros, micros, now), Sum::and);
            }
            if (wrong && failed.size() < MOST_WAITING) {
                failed.add(
                        new FailedCall(
                                now,
                                called,
                                status,
                                said.length() > LONGEST_MESSAGE
                                        ? said.substring(0, LONGEST_MESSAGE)
                                        : said,
                                trace));
            }
        }
    }

    private Timer timer(TimerKey key) {
        var called = key.called();
        return meters.timer(
                "sandpiper.calls",
                "service",
                called.protocol().equals(Called.OUTGOING)
                        ? called.service()
                        : called.service() + " v" + called.version(),
                "resource",
                called.resource(),
                "operation",
                called.operation(),
                "protocol",
                called.protocol(),
                "client",
                called.caller(),
                "outcome",
                key.wrong() ? "error" : "ok");
    }

    /** Stores what was counted since the last time. */
    @Scheduled(fixedDelay = 5_000)
    @PreDestroy
    public void store() {
        var uses = new ArrayList<Use>();
        List<FailedCall> wrong;
        synchronized (sums) {
            sums.forEach((key, sum) ->
                    uses.add(
                            new Use(
                                    key.day(),
                                    key.called(),
                                    sum.calls(),
                                    sum.errors(),
                                    sum.micros(),
                                    sum.slowest(),
                                    sum.last())));
            wrong = List.copyOf(failed);
            sums.clear();
            failed.clear();
        }
        if (uses.isEmpty()) {
            return;
        }
        try {
            engine.calls().add(uses, wrong);
        } catch (StorageException | OverloadedException e) {
            LOG.warn("{} kinds of calls were not counted", uses.size(), e);
        }
    }
}
