package sandpiper.engine.delivery;

import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.event.Delivery;
import sandpiper.engine.event.Delivery.State;
import sandpiper.engine.event.Delivery.Target;
import sandpiper.engine.event.Event;
import sandpiper.engine.outside.AnswersWantedException;
import sandpiper.engine.outside.GivenAnswers;
import sandpiper.engine.outside.Outside;
import sandpiper.engine.port.EventStorage;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.write.ReactionWrites;
import sandpiper.engine.writer.Writer;

/**
 * Runs handlers and schedules for what is due. The note that it is done is stored in the same
 * transaction as what it did; when it fails, only the note of the try is.
 */
final class Reactions {
    private static final Logger LOG = LoggerFactory.getLogger(Reactions.class);

    /** Deliveries that are handed to the writer together. */
    private static final int AT_ONCE = 50;

    /**
     * How many looks' time is spent on what follows each other. A look costs the more the more
     * waits; other work of this thread is kept back no longer than this.
     */
    private static final int LOOKS_LONG = 4;

    private static final Duration SHORTEST_TURN = Duration.ofMillis(200);

    /** Longer than asking and the wait for the writer together may take. */
    private static final Duration WHILE_ASKING = Duration.ofMinutes(3);

    private final Storage storage;
    private final Supplier<LiveRelease> live;
    private final Writer writer;
    private final ReactionWrites writes;
    private final Outside outside;
    private final Backoff backoff;
    private final Clock clock;

    Reactions(
            Storage storage,
            Supplier<LiveRelease> live,
            Writer writer,
            ReactionWrites writes,
            Outside outside,
            Backoff backoff,
            Clock clock) {
        this.storage = storage;
        this.live = live;
        this.writer = writer;
        this.writes = writes;
        this.outside = outside;
        this.backoff = backoff;
        this.clock = clock;
    }

    private EventStorage events() {
        return storage.events();
    }

    /** Runs what is due and what waited for that; tells whether there was any. */
    boolean run() {
        long start = System.nanoTime();
        var due = new ArrayList<Delivery>();
        try (var session = storage.snapshot()) {
            due.addAll(events().due(session, Target.Kind.HANDLER, clock.instant(), AT_ONCE));
            due.addAll(events().due(session, Target.Kind.SCHEDULE, clock.instant(), AT_ONCE));
        }
        long looked = System.nanoTime() - start;
        long turn = Math.max(SHORTEST_TURN.toNanos(), LOOKS_LONG * looked);
        var done = run(due);
        boolean some = !done.isEmpty();
        while (!done.isEmpty() && System.nanoTime() - start < turn) {
            done = run(following(done));
        }
        return some;
    }

    private List<Delivery> following(List<Delivery> done) {
        try (var session = storage.snapshot()) {
            return done.stream()
                    .flatMap(one -> events().following(session, one, clock.instant()).stream())
                    .toList();
        }
    }

    /** Runs deliveries; gives those that were not left to another process. */
    private List<Delivery> run(List<Delivery> due) {
        var running = new ArrayList<CompletableFuture<Boolean>>();
        Set<String> batches = new HashSet<>();
        var begun = new ArrayList<Delivery>();
        for (var delivery : due) {
            if (isFirstOfBatch(delivery, batches)) {
                begun.add(delivery);
                running.add(submit(delivery.number()));
            }
        }
        var done = new ArrayList<Delivery>();
        for (int i = 0; i < running.size(); i++) {
            if (await(running.get(i), begun.get(i))) {
                done.add(begun.get(i));
            }
        }
        return done;
    }

    /** Whether nothing of the same batch was begun just now. */
    private boolean isFirstOfBatch(Delivery delivery, Set<String> begun) {
        var handler = live.get().logic().handler(delivery.target().name());
        if (handler.isEmpty() || !handler.get().definition().batch()) {
            return true;
        }
        // The rest of the batch is found, and done, by whichever of it comes first.
        return begun.add(delivery.target().name());
    }

    private CompletableFuture<Boolean> submit(long delivery) {
        return writer.submit(transaction ->
                GivenAnswers.NOTHING.in(() -> run(transaction, claimed(transaction, delivery))));
    }

    /**
     * The same for what was put off to be answered. Whoever holds it at this moment is waited for:
     * left alone, it would not be due again before its time is over.
     */
    private CompletableFuture<Boolean> submitAnswered(long delivery, GivenAnswers given) {
        return writer.submit(transaction ->
                given.in(() -> run(transaction, events().delivery(transaction, delivery))));
    }

    private boolean await(CompletableFuture<Boolean> running, Delivery delivery) {
        try {
            return Writer.await(running);
        } catch (AnswersWantedException _) {
            askFor(delivery);
        } catch (RuntimeException e) {
            noteFault(delivery, e);
        }
        return true;
    }

    private void noteFault(Delivery delivery, RuntimeException e) {
        LOG.error("A {} met something unexpected", delivery.target().written(), e);
        writer.write(transaction -> {
            var now = events().delivery(transaction, delivery.number());
            now.ifPresent(one ->
                    events().update(transaction, failed(one, "The service met a fault.", null)));
            return true;
        });
    }

    /**
     * Has what a delivery wants fetched from outside while others go on. It is not due meanwhile;
     * when the service ends before it is done, it becomes due again.
     */
    private void askFor(Delivery delivery) {
        var key = writer.write(transaction -> putOff(transaction, delivery.number()));
        if (key.isEmpty()) {
            return;
        }
        Thread.ofVirtual()
                .name("sandpiper-handler")
                .start(() -> {
                    try {
                        outside.answered(
                                key,
                                given -> Writer.await(submitAnswered(delivery.number(), given)));
                    } catch (IllegalStateException e) {
                        LOG.info("A {} is left for later", delivery.target().written(), e);
                    } catch (RuntimeException e) {
                        noteFault(delivery, e);
                    }
                });
    }

    /** Puts off a delivery and its batch; gives what identifies the work, empty when it is done. */
    private String putOff(Transaction transaction, long number) {
        var found = claimed(transaction, number);
        if (found.isEmpty()) {
            return "";
        }
        var delivery = found.get();
        var event = events().find(transaction, delivery.event()).orElseThrow();
        var until = clock.instant().plus(WHILE_ASKING);
        var handler = live.get().logic().handler(delivery.target().name());
        if (handler.isEmpty() || !handler.get().definition().batch()) {
            events().update(transaction, delivery.putOff(until));
            return "delivery " + number;
        }
        for (var one : events().waitingOf(transaction, delivery.target(), event.unit())) {
            events().update(transaction, one.delivery().putOff(until));
        }
        return "%s of %s".formatted(delivery.target().name(), event.unit());
    }

    /** A delivery that is due and that no other process is at. */
    private Optional<Delivery> claimed(Transaction transaction, long number) {
        var now = clock.instant();
        return events().claim(transaction, number, now)
                .filter(one -> one.state() == State.WAITING)
                .filter(one -> !one.due().isAfter(now));
    }

    private boolean run(Transaction transaction, Optional<Delivery> found) {
        if (found.isEmpty() || found.get().state() != State.WAITING) {
            return false;
        }
        var delivery = found.get();
        var event = events().find(transaction, delivery.event()).orElseThrow();
        switch (delivery.target().kind()) {
            case HANDLER -> handle(transaction, delivery, event);
            case SCHEDULE -> due(transaction, delivery, event);
            case WEBHOOK -> throw new IllegalStateException("Webhooks are not called here");
        }
        return true;
    }

    private void handle(Transaction transaction, Delivery delivery, Event event) {
        var now = live.get();
        var handler = now.logic().handler(delivery.target().name());
        if (handler.isEmpty() || now.release().event(event.name()).isEmpty()) {
            gone(transaction, delivery, "There is no handler %s any more.");
            return;
        }
        if (!handler.get().definition().batch()) {
            var outcome = writes.handle(now, transaction, handler.get(), List.of(event));
            finish(transaction, List.of(delivery), outcome);
            return;
        }
        var batch = events().waitingOf(transaction, delivery.target(), event.unit());
        var told =
                batch.stream()
                        .map(EventStorage.Delivered::event)
                        .filter(one -> now.release().event(one.name()).isPresent())
                        .toList();
        var outcome = writes.handle(now, transaction, handler.get(), told);
        finish(transaction, batch.stream().map(EventStorage.Delivered::delivery).toList(), outcome);
    }

    private void due(Transaction transaction, Delivery delivery, Event event) {
        var now = live.get();
        var schedule = now.logic().schedule(delivery.target().name());
        if (schedule.isEmpty()) {
            gone(transaction, delivery, "There is no schedule %s any more.");
            return;
        }
        finish(transaction, List.of(delivery), writes.due(now, transaction, schedule.get(), event));
    }

    private void gone(Transaction transaction, Delivery delivery, String message) {
        events().update(
                        transaction,
                        new Delivery(
                                delivery.number(),
                                delivery.event(),
                                delivery.target(),
                                delivery.record(),
                                State.PARKED,
                                delivery.tries() + 1,
                                delivery.due(),
                                clock.instant(),
                                message.formatted(delivery.target().name()),
                                null));
    }

    private void finish(Transaction transaction, List<Delivery> deliveries, Outcome outcome) {
        for (var delivery : deliveries) {
            events().update(
                            transaction,
                            outcome instanceof Outcome.Refused refused
                                    ? refused(transaction, delivery, refused)
                                    : done(delivery));
        }
    }

    private Delivery done(Delivery delivery) {
        return new Delivery(
                delivery.number(),
                delivery.event(),
                delivery.target(),
                delivery.record(),
                State.DONE,
                delivery.tries() + 1,
                delivery.due(),
                clock.instant(),
                "Done.",
                null);
    }

    private Delivery refused(Transaction transaction, Delivery delivery, Outcome.Refused refused) {
        var said = refused.faults().stream().map(Fault::message).collect(Collectors.joining(" "));
        var trace = refused.trace();
        if (trace != null) {
            storage.traces().put(transaction, trace);
        }
        boolean hopeless =
                refused.faults().stream().anyMatch(fault -> fault.code() == RecordCode.EVENT_LOOP);
        var failed = failed(delivery, said, trace == null ? null : trace.id());
        return hopeless ? failed.parked(clock.instant()) : failed;
    }

    /** After a try that failed: to be tried again, or given up. */
    private Delivery failed(Delivery delivery, String said, @Nullable UUID trace) {
        int tries = delivery.tries() + 1;
        var now = clock.instant();
        var next = backoff.next(tries, now);
        return new Delivery(
                delivery.number(),
                delivery.event(),
                delivery.target(),
                delivery.record(),
                next.isPresent() ? State.WAITING : State.PARKED,
                tries,
                next.orElse(now),
                next.isPresent() ? null : now,
                said,
                trace);
    }
}
