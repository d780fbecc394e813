package sandpiper.engine.delivery;

import com.fasterxml.uuid.Generators;
import com.fasterxml.uuid.NoArgGenerator;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.event.Delivery;
import sandpiper.engine.event.Delivery.State;
import sandpiper.engine.event.Delivery.Target;
import sandpiper.engine.event.Event;
import sandpiper.engine.event.Webhook;
import sandpiper.engine.outside.Outside;
import sandpiper.engine.port.EventStorage;
import sandpiper.engine.port.EventStorage.Delivered;
import sandpiper.engine.port.EventStorage.Try;
import sandpiper.engine.port.RunStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.react.Listeners;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.write.ReactionWrites;
import sandpiper.engine.writer.Writer;

/** Events, who was told of them, and who is to be told. Safe to share between threads. */
public final class Deliveries implements AutoCloseable {
    private static final NoArgGenerator IDS = Generators.timeBasedEpochGenerator();

    private final Storage storage;
    private final Writer writer;
    private final Clock clock;
    private final Listening listening;
    private final Dispatcher dispatcher;
    private final List<Runnable> webhookWaiters = new CopyOnWriteArrayList<>();

    private Deliveries(
            Storage storage,
            Supplier<LiveRelease> live,
            Writer writer,
            ReactionWrites writes,
            Listening listening,
            Outside outside,
            Backoff ofHandlers,
            boolean schedules,
            Clock clock) {
        this.storage = storage;
        this.writer = writer;
        this.clock = clock;
        this.listening = listening;
        this.dispatcher =
                new Dispatcher(
                        storage,
                        writer,
                        clock,
                        new FanOut(storage, live, listening, clock),
                        new Reactions(storage, live, writer, writes, outside, ofHandlers, clock),
                        schedules ? new Timetable(storage, live, writer, clock)::run : () -> false,
                        () -> webhookWaiters.forEach(Runnable::run));
        refreshWebhooks();
        writer.afterCommit(() -> {
            if (listening.takeRaised()) {
                dispatcher.wake();
            }
        });
        dispatcher.start();
    }

    /** Who listens now, before anything is started; the way in for those who raise events. */
    public static Listeners listeners() {
        return new Listening();
    }

    /**
     * Starts to hand events on to those who listen.
     *
     * @param outside fetches what handlers and schedules want from outside
     * @param schedules whether what is due at a time is done as well
     */
    public static Deliveries start(
            Storage storage,
            Supplier<LiveRelease> live,
            Writer writer,
            ReactionWrites writes,
            Listeners listeners,
            Outside outside,
            Backoff ofHandlers,
            boolean schedules,
            Clock clock) {
        return new Deliveries(
                storage,
                live,
                writer,
                writes,
                (Listening) listeners,
                outside,
                ofHandlers,
                schedules,
                clock);
    }

    private <T> T read(Function<Session, T> reading) {
        try (var session = storage.snapshot()) {
            return reading.apply(session);
        }
    }

    private EventStorage events() {
        return storage.events();
    }

    /** The newest events; {@code search} in name or key, empty for any. */
    public List<Event> latest(String search, int limit) {
        return read(session -> events().latest(session, search, limit));
    }

    /** Events behind a place in the order, of some names only. */
    public List<Event> published(long after, Collection<String> names, int limit) {
        return names.isEmpty()
                ? List.of()
                : read(session -> events().published(session, after, names, limit));
    }

    /** The number of the newest event; 0 when there is none. */
    public long newest() {
        return read(session -> events().newest(session));
    }

    public List<Delivered> deliveries(EventStorage.DeliveryFilter wanted) {
        return read(session -> events().deliveries(session, wanted));
    }

    /** A delivery with its event, or nothing. */
    public Optional<Delivered> delivery(long number) {
        return read(
                session -> events().delivery(session, number).map(one -> withEvent(session, one)));
    }

    private Delivered withEvent(Session session, Delivery delivery) {
        return new Delivered(delivery, events().find(session, delivery.event()).orElseThrow());
    }

    /** The tries of a delivery to a webhook, newest first. */
    public List<Try> tries(long delivery) {
        return read(session -> events().tries(session, delivery));
    }

    public long parked() {
        return read(session -> events().count(session, State.PARKED));
    }

    /** How many wait. */
    public long waiting() {
        return read(session -> events().count(session, State.WAITING));
    }

    /** Tries a delivery again at once, from the first try on; nothing when there is none. */
    public Optional<Delivery> redeliver(long number) {
        var again =
                writer.write(transaction ->
                        events().delivery(transaction, number)
                                .map(one -> {
                                    var fresh = one.again(clock.instant());
                                    events().update(transaction, fresh);
                                    return fresh;
                                }));
        wakeAll();
        return again;
    }

    /** Tries every parked delivery to a target again; returns how many there are. */
    public int redeliverAll(String target) {
        var parked = deliveries(new EventStorage.DeliveryFilter(target, State.PARKED, "", 10_000));
        writer.write(transaction -> {
            parked.forEach(
                    one -> events().update(transaction, one.delivery().again(clock.instant())));
            return true;
        });
        wakeAll();
        return parked.size();
    }

    private void wakeAll() {
        dispatcher.wake();
        webhookWaiters.forEach(Runnable::run);
    }

    /** Runs of functions, handlers and schedules, newest first. */
    public List<RunStorage.Run> runs(RunStorage.RunFilter wanted) {
        return read(session -> storage.runs().latest(session, wanted));
    }

    // Webhooks

    public List<Webhook> webhooks() {
        return listening.webhooks();
    }

    /** Puts a webhook in the place of the one with its name, if there is one. */
    public void put(Webhook webhook) {
        writer.write(transaction -> {
            storage.webhooks().put(transaction, webhook);
            return true;
        });
        refreshWebhooks();
        wakeAll();
    }

    /** Removes a webhook; what waits for it is forgotten. */
    public void removeWebhook(String name) {
        writer.write(transaction -> {
            storage.webhooks().remove(transaction, name);
            events().forgetWaiting(transaction, new Target(Target.Kind.WEBHOOK, name));
            return true;
        });
        refreshWebhooks();
    }

    /** Goes by the webhooks as they are stored; a release gives events other names. */
    public void refreshWebhooks() {
        listening.webhooks(read(session -> storage.webhooks().all(session)));
    }

    /** Raises an event that only one webhook hears, to try it out; returns its id. */
    public UUID test(Webhook webhook, String by) {
        var event =
                new Event(
                        0,
                        IDS.generate(),
                        "webhook.test",
                        Event.Kind.TEST,
                        IDS.generate(),
                        null,
                        null,
                        null,
                        clock.instant(),
                        by,
                        "console",
                        0,
                        Map.of("webhook", webhook.name(), "message", "This is a test."));
        writer.write(transaction -> {
            events().add(transaction, event);
            return true;
        });
        dispatcher.wake();
        return event.id();
    }

    /** Is told when there may be something for webhooks. */
    public void onWebhooksWaiting(Runnable waiter) {
        webhookWaiters.add(waiter);
    }

    /** Deliveries to webhooks that are due, those left out that wait for an earlier one. */
    public List<Delivered> dueForWebhooks(int limit) {
        return read(session ->
                events().due(session, Target.Kind.WEBHOOK, clock.instant(), limit).stream()
                        .map(one -> withEvent(session, one))
                        .toList());
    }

    /** What waited for a delivery to a webhook that is done, if it is due; see {@link #take}. */
    public Optional<Delivery> followingForWebhooks(Delivery done) {
        return read(session -> events().following(session, done, clock.instant()));
    }

    /**
     * Takes a delivery to a webhook for a while, in which nobody else delivers it.
     *
     * @return nothing when it is done, not due any more, or another process has it
     */
    public Optional<Delivered> take(long number, Duration atMost) {
        if (storage.writers() == 1) {
            return delivery(number).filter(one -> isDue(one.delivery()));
        }
        return writer.write(transaction ->
                events().claim(transaction, number, clock.instant())
                        .filter(this::isDue)
                        .map(one -> {
                            events().hold(transaction, number, clock.instant().plus(atMost));
                            return withEvent(transaction, one);
                        }));
    }

    private boolean isDue(Delivery delivery) {
        return delivery.state() == State.WAITING && !delivery.due().isAfter(clock.instant());
    }

    /** When the next delivery to a webhook is due, or nothing. */
    public Optional<Instant> nextForWebhooks() {
        return read(session -> events().nextDue(session, Target.Kind.WEBHOOK));
    }

    /**
     * Notes what came of a try to call a webhook.
     *
     * @param next when to try again, or {@code null} to give up; not looked at when it was
     *     delivered
     */
    public void tried(Delivery delivery, Try one, boolean delivered, @Nullable Instant next) {
        var state = delivered ? State.DONE : next == null ? State.PARKED : State.WAITING;
        var now = clock.instant();
        var after =
                new Delivery(
                        delivery.number(),
                        delivery.event(),
                        delivery.target(),
                        delivery.record(),
                        state,
                        delivery.tries() + 1,
                        next == null ? now : next,
                        state == State.WAITING ? null : now,
                        one.said(),
                        null);
        writer.write(transaction -> {
            events().addTry(transaction, one);
            events().update(transaction, after);
            return true;
        });
    }

    /** Hands nothing on any more. */
    @Override
    public void close() {
        dispatcher.close();
    }
}
