package sandpiper.server.outside;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.call.Called;
import sandpiper.engine.outside.Ask;
import sandpiper.engine.outside.OutsideServices;
import sandpiper.engine.outside.Reply;
import sandpiper.engine.port.OutsideStorage.Reach;
import sandpiper.model.connection.LookupType;
import sandpiper.model.connection.OutsideCallType;
import sandpiper.model.connection.OutsideOperation;
import sandpiper.server.outgoing.OutgoingHttp;
import sandpiper.server.outgoing.Targets;
import sandpiper.server.security.SecretCipher;
import sandpiper.server.settings.Rehearsed;
import sandpiper.server.settings.Settings;
import sandpiper.server.traffic.Traffic;

/**
 * Asks services outside: a few at once of each, again when that does no harm, and not at all for a
 * while when one does not answer. Safe to be used by many threads.
 */
@Component
public class OutsideAsker implements OutsideServices {
    /** Calls of one service at the same time. */
    private static final int EACH = 8;

    /** As a gateway says it. */
    private static final int NO_ANSWER = 504;

    private static final int WRONG_ANSWER = 502;

    private static final List<Duration> WAITS =
            List.of(Duration.ofMillis(200), Duration.ofMillis(800));

    private final ObjectProvider<Engine> engine;
    private final ObjectProvider<Traffic> traffic;
    private final OutgoingHttp http;
    private final OutsideHttp outside;
    private final Clock clock;
    private final Duration wholeTime;
    private final boolean held;
    private final Map<String, Circuit> circuits = new ConcurrentHashMap<>();
    private final Map<String, Semaphore> places = new ConcurrentHashMap<>();

    @Autowired
    OutsideAsker(
            ObjectProvider<Engine> engine,
            ObjectProvider<Traffic> traffic,
            Targets connectionTargets,
            SecretCipher cipher,
            Settings settings,
            Clock clock,
            Optional<Rehearsed> rehearsed) {
        this(
                engine,
                traffic,
                new OutgoingHttp(connectionTargets, settings.connections().timeout(), "outside"),
                cipher,
                settings.connections(),
                clock,
                rehearsed.isPresent());
    }

    private OutsideAsker(
            ObjectProvider<Engine> engine,
            ObjectProvider<Traffic> traffic,
            OutgoingHttp http,
            SecretCipher cipher,
            Settings.Connections settings,
            Clock clock,
            boolean held) {
        this(
                engine,
                traffic,
                http,
                new OutsideHttp(http, cipher, clock, (int) settings.answer().toBytes()),
                clock,
                settings.timeout(),
                held);
    }

    /** {@code held} when nothing may go out. */
    OutsideAsker(
            ObjectProvider<Engine> engine,
            ObjectProvider<Traffic> traffic,
            OutgoingHttp http,
            OutsideHttp outside,
            Clock clock,
            Duration wholeTime,
            boolean held) {
        this.engine = engine;
        this.traffic = traffic;
        this.http = http;
        this.outside = outside;
        this.clock = clock;
        this.wholeTime = wholeTime;
        this.held = held;
    }

    @Override
    public Reply ask(Ask ask, String repeatKey) {
        var label = ask.connection().label();
        var operation = operation(ask);
        Heard heard;
        try {
            heard =
                    send(
                            ask.connection().setting(),
                            ask.connection().name(),
                            ask.name(),
                            operation,
                            ask.arguments(),
                            repeatKey);
        } catch (IllegalArgumentException e) {
            return new Reply.Failure("%s: %s".formatted(label, e.getMessage()), false);
        }
        boolean isNone = heard.status() == 404 && ask.kind() == Ask.Kind.ENTRY;
        if (isNone) {
            return new Reply.Answer(null);
        }
        var failure = heard.failure();
        return failure == null
                ? read(ask, heard.answer())
                : new Reply.Failure(
                        heard.down()
                                ? "%s does not answer: %s".formatted(label, failure)
                                : "%s cannot be used: %s".formatted(label, failure),
                        heard.down());
    }

    private static OutsideOperation operation(Ask ask) {
        return switch (ask.kind()) {
            case CALL -> call(ask).operation();
            case ENTRIES -> lookup(ask).operation();
            case ENTRY -> java.util.Objects.requireNonNull(lookup(ask).single());
        };
    }

    private static LookupType lookup(Ask ask) {
        return ask.connection().lookup(ask.name()).orElseThrow();
    }

    private static OutsideCallType call(Ask ask) {
        return (OutsideCallType) ask.connection().function(ask.name()).orElseThrow();
    }

    private static Reply read(Ask ask, @Nullable Object answer) {
        return AnswerReading.reply(
                ask.connection().label(),
                () ->
                        switch (ask.kind()) {
                            case CALL -> AnswerReading.at(answer, call(ask).at());
                            case ENTRIES -> AnswerReading.entries(lookup(ask), answer);
                            case ENTRY -> AnswerReading.entry(lookup(ask), answer);
                        });
    }

    /**
     * Sends a request to the service of a setting.
     *
     * @param service and {@code what} is asked, for Traffic
     * @throws IllegalArgumentException when a value cannot be sent, saying why
     */
    public Heard send(
            String setting,
            String service,
            String what,
            OutsideOperation operation,
            List<@Nullable Object> values,
            String repeatKey) {
        if (held) {
            return Heard.failed(0, "Nothing goes out from a rehearsal.", true, false);
        }
        var reach = engine.getObject().reaches().find(setting);
        if (reach.isEmpty()) {
            return Heard.failed(
                    0,
                    "This instance has no address for it; give it one under Connections.",
                    true,
                    false);
        }
        var request = OutsideRequest.of(operation, reach.get().address(), values);
        var circuit = circuits.computeIfAbsent(setting, _ -> new Circuit());
        if (circuit.ask(clock.instant()) == Circuit.Leave.WAIT) {
            return Heard.failed(
                    0, "It has not answered of late and is left alone for a while.", true, false);
        }
        long start = System.nanoTime();
        Heard heard = null;
        try {
            heard = withPlace(setting, () -> tried(reach.get(), request, repeatKey));
        } finally {
            if (heard == null || heard.down()) {
                circuit.failed(clock.instant());
            } else {
                circuit.succeeded();
            }
        }
        count(service, what, operation, heard, Duration.ofNanos(System.nanoTime() - start));
        return heard;
    }

    /** Whether a service is left alone for a while. */
    public boolean isLeftAlone(String setting) {
        var circuit = circuits.get(setting);
        return circuit != null && circuit.isOpen();
    }

    /** Begins anew with a service whose address or credentials were changed. */
    public void forget(String setting) {
        circuits.remove(setting);
    }

    private Heard withPlace(String setting, java.util.function.Supplier<Heard> sending) {
        var place = places.computeIfAbsent(setting, _ -> new Semaphore(EACH));
        try {
            if (!place.tryAcquire(wholeTime.toMillis(), TimeUnit.MILLISECONDS)) {
                return Heard.failed(0, "Too many calls wait for it.", true, false);
            }
        } catch (InterruptedException _) {
            Thread.currentThread().interrupt();
            return Heard.failed(0, "The service is stopping.", true, false);
        }
        try {
            return sending.get();
        } finally {
            place.release();
        }
    }

    private Heard tried(Reach reach, OutsideRequest request, String repeatKey) {
        long end = System.nanoTime() + wholeTime.toNanos();
        var heard = outside.send(reach, request, repeatKey);
        for (var wait : WAITS) {
            if (!heard.again() || System.nanoTime() + wait.toNanos() > end) {
                break;
            }
            try {
                Thread.sleep(wait);
            } catch (InterruptedException _) {
                Thread.currentThread().interrupt();
                break;
            }
            heard = outside.send(reach, request, repeatKey);
        }
        return heard;
    }

    private void count(
            String service, String what, OutsideOperation operation, Heard heard, Duration took) {
        var failure = heard.failure();
        int status = heard.status() == 0 ? NO_ANSWER : heard.status();
        traffic.getObject()
                .count(
                        new Called(service, 0, 0, what, operation.written(), Called.OUTGOING, ""),
                        failure != null && status < 400 ? WRONG_ANSWER : status,
                        took,
                        failure == null ? "" : failure,
                        "");
    }

    @PreDestroy
    void close() throws IOException {
        http.close();
    }
}
