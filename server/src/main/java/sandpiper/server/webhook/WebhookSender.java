package sandpiper.server.webhook;

import jakarta.annotation.PostConstruct;
import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.delivery.Backoff;
import sandpiper.engine.event.Delivery;
import sandpiper.engine.event.Webhook;
import sandpiper.engine.port.ConflictException;
import sandpiper.engine.port.EventStorage.Delivered;
import sandpiper.engine.port.EventStorage.Try;
import sandpiper.server.json.JsonText;
import sandpiper.server.security.SecretCipher;
import sandpiper.server.settings.Rehearsed;
import sandpiper.server.settings.Settings;

/**
 * Delivers what is due to webhooks: several at once, one after the other about each record. A
 * webhook that is slow takes up its own few places and nobody else's.
 */
@Component
class WebhookSender {
    private static final Logger LOG = LoggerFactory.getLogger(WebhookSender.class);
    private static final int AT_ONCE = 200;

    /** Messages on their way to one webhook. */
    private static final int EACH = 4;

    /** Messages about one record that follow each other before others have their turn. */
    private static final int IN_A_ROW = 50;

    private static final Duration LONGEST_SLEEP = Duration.ofSeconds(5);
    private static final Duration SHORTEST_SLEEP = Duration.ofMillis(50);

    /** How long after the longest call another process may try, since that of this one has died. */
    private static final Duration MARGIN = Duration.ofSeconds(5);

    private static final Duration LONGEST_WAIT_ASKED_FOR = Duration.ofHours(1);

    private final Engine engine;
    private final SecretCipher seal;
    private final WebhookClient client;
    private final Backoff backoff;
    private final Set<Long> onTheirWay = ConcurrentHashMap.newKeySet();
    private final Map<String, Semaphore> places = new ConcurrentHashMap<>();
    private final Semaphore woken = new Semaphore(0);
    private final ExecutorService senders = Executors.newVirtualThreadPerTaskExecutor();
    private final Thread thread;
    private final Duration longest;
    private final boolean held;
    private volatile boolean closed;

    @Autowired
    WebhookSender(
            Engine engine,
            SecretCipher seal,
            WebhookClient client,
            Settings settings,
            Optional<Rehearsed> rehearsed) {
        this(
                engine,
                seal,
                client,
                settings.webhooks().retries(),
                settings.webhooks().timeout(),
                rehearsed.isPresent());
    }

    /** {@code timeout} is that of one call; {@code held} when nothing may go out. */
    WebhookSender(
            Engine engine,
            SecretCipher seal,
            WebhookClient client,
            List<Duration> retries,
            Duration timeout,
            boolean held) {
        this.held = held;
        this.longest = timeout.plus(MARGIN);
        this.engine = engine;
        this.seal = seal;
        this.client = client;
        this.backoff = retries.isEmpty() ? Backoff.OF_WEBHOOKS : new Backoff(retries);
        this.thread = Thread.ofPlatform().name("sandpiper-webhooks").unstarted(this::run);
    }

    @PostConstruct
    void start() {
        if (held) {
            return;
        }
        engine.deliveries().onWebhooksWaiting(woken::release);
        thread.start();
    }

    private void run() {
        while (!closed) {
            try {
                if (!step()) {
                    sleep();
                }
            } catch (ConflictException e) {
                LOG.warn("Delivering to webhooks waits: {}", e.getMessage());
                pause(LONGEST_SLEEP);
            } catch (RuntimeException e) {
                if (!closed) {
                    LOG.error("Delivering to webhooks met something unexpected and goes on", e);
                    pause(LONGEST_SLEEP);
                }
            }
        }
    }

    /** Begins what can be begun; tells whether there was any. */
    private boolean step() {
        boolean begun = false;
        for (var due : engine.deliveries().dueForWebhooks(AT_ONCE)) {
            var name = due.delivery().target().name();
            var room = places.computeIfAbsent(name, _ -> new Semaphore(EACH));
            if (onTheirWay.contains(due.delivery().number()) || !room.tryAcquire()) {
                continue;
            }
            if (!onTheirWay.add(due.delivery().number())) {
                room.release();
                continue;
            }
            begun = true;
            senders.execute(() -> {
                try {
                    deliverInARow(due.delivery());
                } catch (RuntimeException e) {
                    if (!closed) {
                        LOG.error("Delivering to the webhook {} went wrong", name, e);
                    }
                } finally {
                    room.release();
                    woken.release();
                }
            });
        }
        return begun;
    }

    private void sleep() {
        var next = engine.deliveries().nextForWebhooks();
        var wait =
                next.map(due -> Duration.between(engine.clock().instant(), due))
                        .orElse(LONGEST_SLEEP);
        pause(
                wait.compareTo(SHORTEST_SLEEP) < 0
                        ? SHORTEST_SLEEP
                        : wait.compareTo(LONGEST_SLEEP) > 0 ? LONGEST_SLEEP : wait);
    }

    private void pause(Duration time) {
        try {
            if (woken.tryAcquire(time.toMillis(), TimeUnit.MILLISECONDS)) {
                woken.drainPermits();
            }
        } catch (InterruptedException _) {
            closed = true;
        }
    }

    /**
     * Delivers a message that is on its way, and those about the same record that waited for it.
     */
    private void deliverInARow(Delivery first) {
        var next = Optional.of(first);
        for (int left = IN_A_ROW - 1; next.isPresent(); left--) {
            var delivery = next.get();
            boolean tried;
            try {
                var due = stillDue(delivery);
                due.ifPresent(this::deliver);
                tried = due.isPresent();
            } finally {
                onTheirWay.remove(delivery.number());
            }
            next =
                    tried && left > 0 && !closed
                            ? engine.deliveries()
                                    .followingForWebhooks(delivery)
                                    .filter(one -> onTheirWay.add(one.number()))
                            : Optional.empty();
        }
    }

    /**
     * What is due was read a while ago; another sender may have delivered it since. Now that it is
     * ours, what is stored of it says whether it is still to be done.
     */
    private Optional<Delivered> stillDue(Delivery read) {
        return engine.deliveries().take(read.number(), longest);
    }

    private void deliver(Delivered due) {
        var delivery = due.delivery();
        var webhook =
                engine.deliveries().webhooks().stream()
                        .filter(one -> one.name().equals(delivery.target().name()))
                        .findFirst();
        var at = engine.clock().instant();
        if (webhook.isEmpty() || webhook.get().disabled()) {
            var said =
                    webhook.isEmpty()
                            ? "There is no such webhook any more."
                            : "The webhook is disabled.";
            note(delivery, at, 0, WebhookClient.Sent.failed(said), "", true);
            return;
        }
        var secrets = secrets(webhook.get(), at);
        if (secrets.isEmpty()) {
            note(
                    delivery,
                    at,
                    0,
                    WebhookClient.Sent.failed(
                            "Its secret cannot be opened with this instance's key; rotate it."),
                    "",
                    true);
            return;
        }
        var body = JsonText.write(CloudEvents.of(engine.live().release(), due.event()));
        var id = due.event().id().toString();
        var headers = new LinkedHashMap<String, String>();
        headers.put(Signature.ID, id);
        headers.put(Signature.TIMESTAMP, String.valueOf(at.getEpochSecond()));
        headers.put(Signature.SIGNATURE, Signature.of(secrets, id, at, body));
        long start = System.nanoTime();
        var sent = client.post(webhook.get().address(), headers, body);
        long millis = (System.nanoTime() - start) / 1_000_000;
        note(delivery, at, millis, sent, written(webhook.get(), headers, body), sent.gone());
    }

    private static String written(Webhook webhook, Map<String, String> headers, String body) {
        var text = new StringBuilder("POST ").append(webhook.address()).append('\n');
        headers.forEach((name, value) -> text.append(name).append(": ").append(value).append('\n'));
        return text.append('\n').append(body).toString();
    }

    private List<String> secrets(Webhook webhook, Instant now) {
        var secrets = new ArrayList<String>();
        seal.open(webhook.sealedSecret()).ifPresent(secrets::add);
        var previous = webhook.previousSecret();
        var until = webhook.previousUntil();
        if (previous != null && until != null && until.isAfter(now)) {
            seal.open(previous).ifPresent(secrets::add);
        }
        return secrets;
    }

    private void note(
            Delivery delivery,
            Instant at,
            long millis,
            WebhookClient.Sent sent,
            String request,
            boolean hopeless) {
        engine.deliveries()
                .tried(
                        delivery,
                        new Try(
                                delivery.number(),
                                at,
                                millis,
                                sent.status(),
                                request,
                                sent.answer(),
                                sent.said()),
                        sent.delivered(),
                        sent.delivered() || hopeless ? null : next(delivery, sent));
    }

    /** When to try again, or {@code null} to give up; a receiver may ask for more time. */
    private @Nullable Instant next(Delivery delivery, WebhookClient.Sent sent) {
        var now = engine.clock().instant();
        var next = backoff.next(delivery.tries() + 1, now).orElse(null);
        var asked = sent.retryAfter();
        if (next == null || asked == null) {
            return next;
        }
        var wanted =
                now.plus(
                        asked.compareTo(LONGEST_WAIT_ASKED_FOR) > 0
                                ? LONGEST_WAIT_ASKED_FOR
                                : asked);
        return wanted.isAfter(next) ? wanted : next;
    }

    @PreDestroy
    void close() throws InterruptedException {
        closed = true;
        if (held) {
            return;
        }
        woken.release();
        thread.join(Duration.ofSeconds(5));
        senders.shutdown();
        senders.awaitTermination(5, TimeUnit.SECONDS);
    }
}
