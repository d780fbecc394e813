package sandpiper.engine.delivery;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import sandpiper.engine.event.Delivery;
import sandpiper.engine.event.Delivery.Target;
import sandpiper.engine.event.Event;
import sandpiper.engine.event.Webhook;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.release.LiveRelease;

/**
 * Makes a delivery of each event for each of those who hear it, in the order of the events. How far
 * it has come is stored with the deliveries, so an event is handed on once, whatever happens.
 */
final class FanOut {
    private static final String READER = "deliveries";
    private static final String ARRIVALS = "arrivals";
    private static final int AT_ONCE = 500;

    private final Storage storage;
    private final Supplier<LiveRelease> live;
    private final Listening listening;
    private final Clock clock;

    FanOut(Storage storage, Supplier<LiveRelease> live, Listening listening, Clock clock) {
        this.storage = storage;
        this.live = live;
        this.listening = listening;
        this.clock = clock;
    }

    /** What to store next; empty events when there is nothing to do. */
    record Step(long from, List<Event> events, List<Delivery> deliveries) {
        boolean isEmpty() {
            return events.isEmpty();
        }

        boolean reaches(Target.Kind kind) {
            return deliveries.stream().anyMatch(one -> one.target().kind() == kind);
        }
    }

    Step next() {
        try (var session = storage.snapshot()) {
            long position = storage.events().position(session, READER);
            var events = storage.events().after(session, position, AT_ONCE);
            var deliveries = new ArrayList<Delivery>();
            events.forEach(event -> deliveries.addAll(of(event)));
            return new Step(position, events, deliveries);
        }
    }

    /** Whether events are stored that are not in the order yet. */
    boolean areArriving() {
        try (var session = storage.snapshot()) {
            return storage.events().areArriving(session);
        }
    }

    /** Brings events into their order, unless another process does. */
    void arrive(Transaction transaction) {
        if (storage.events().claimPosition(transaction, ARRIVALS).isPresent()) {
            storage.events().arrive(transaction);
        }
    }

    /** Stores a step; whether that was to be done, since another process may have done it. */
    boolean store(Transaction transaction, Step step) {
        var claimed = storage.events().claimPosition(transaction, READER);
        if (claimed.isEmpty() || claimed.getAsLong() != step.from()) {
            return false;
        }
        step.deliveries().forEach(one -> storage.events().addDelivery(transaction, one));
        storage.events().setPosition(transaction, READER, step.events().getLast().number());
        return true;
    }

    private List<Delivery> of(Event event) {
        var now = clock.instant();
        return switch (event.kind()) {
            case DUE ->
                    List.of(
                            Delivery.of(
                                    event, new Target(Target.Kind.SCHEDULE, event.name()), now));
            case TEST ->
                    List.of(
                            Delivery.of(
                                    event,
                                    new Target(
                                            Target.Kind.WEBHOOK,
                                            String.valueOf(event.data().get("webhook"))),
                                    now));
            case RAISED -> raised(event);
        };
    }

    private List<Delivery> raised(Event event) {
        var now = clock.instant();
        var deliveries = new ArrayList<Delivery>();
        var release = live.get();
        for (var handler : release.logic().handlersOf(event.name())) {
            if (!handler.definition().within()) {
                deliveries.add(
                        Delivery.of(event, new Target(Target.Kind.HANDLER, handler.name()), now));
            }
        }
        for (var webhook : listening.webhooks()) {
            if (webhook.hears(event.name())) {
                webhook(release, webhook, event, deliveries);
            }
        }
        return deliveries;
    }

    private void webhook(
            LiveRelease release, Webhook webhook, Event event, List<Delivery> deliveries) {
        var delivery = Delivery.of(event, webhook.target(), clock.instant());
        switch (EventFilter.of(release.release(), webhook)) {
            case EventFilter.Checked.Right(var filter) -> {
                if (filter.holds(event)) {
                    deliveries.add(delivery);
                }
            }
            case EventFilter.Checked.Wrong(var problems) ->
                    // Better kept for a person to look at than lost or told to the wrong one.
                    deliveries.add(
                            new Delivery(
                                    0,
                                    event.number(),
                                    webhook.target(),
                                    event.record(),
                                    Delivery.State.PARKED,
                                    0,
                                    clock.instant(),
                                    clock.instant(),
                                    "The webhook's filter no longer fits: "
                                            + problems.getFirst().message(),
                                    null));
        }
    }
}
