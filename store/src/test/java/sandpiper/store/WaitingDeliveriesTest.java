package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.event.Delivery;
import sandpiper.engine.event.Delivery.State;
import sandpiper.engine.event.Delivery.Target;
import sandpiper.engine.event.Event;
import sandpiper.engine.port.EventStorage;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;

/** What waits behind each other, and what somebody holds. */
class WaitingDeliveriesTest {
    private static final Instant NOW = Instant.parse("2026-05-01T08:00:00Z");
    private static final UUID N_1 = new UUID(0, 1);
    private static final UUID N_2 = new UUID(0, 2);
    private static final Target HANDLER = new Target(Target.Kind.HANDLER, "Berth.hear");
    private static final Target WEBHOOK = new Target(Target.Kind.WEBHOOK, "Berth.hear");

    @TempDir private Path folder;
    private Storage storage;

    @BeforeEach
    void open() {
        storage = Stores.open(folder.resolve("data.db"), Clock.systemUTC());
    }

    @AfterEach
    void close() {
        storage.close();
    }

    private EventStorage events() {
        return storage.events();
    }

    private <T> T write(Function<Transaction, T> work) {
        try (var transaction = storage.begin(false)) {
            var made = work.apply(transaction);
            transaction.commit();
            return made;
        }
    }

    /** An event about a record, and a delivery of it that waits; gives that. */
    private Delivery waits(Target target, @Nullable UUID record) {
        return write(transaction -> {
            var event =
                    new Event(
                            0,
                            UUID.randomUUID(),
                            "Moored",
                            Event.Kind.RAISED,
                            new UUID(9, 9),
                            record == null ? null : "Berth",
                            record,
                            null,
                            NOW,
                            "ann",
                            "test",
                            0,
                            Map.of());
            events().add(transaction, event);
            if (storage.writers() > 1) {
                events().arrive(transaction);
            }
            var stored = events().find(transaction, event.id()).orElseThrow();
            events().addDelivery(transaction, Delivery.of(stored, target, NOW));
            var all = new EventStorage.DeliveryFilter("", null, "", 1);
            return events().deliveries(transaction, all).getFirst().delivery();
        });
    }

    private Delivery done(Delivery delivery) {
        return put(delivery, State.DONE, NOW);
    }

    private Delivery put(Delivery one, State state, Instant due) {
        var after =
                new Delivery(
                        one.number(),
                        one.event(),
                        one.target(),
                        one.record(),
                        state,
                        1,
                        due,
                        null,
                        "",
                        null);
        write(transaction -> {
            events().update(transaction, after);
            return true;
        });
        return after;
    }

    private Optional<Long> following(Delivery done) {
        try (var session = storage.snapshot()) {
            return events().following(session, done, NOW).map(Delivery::number);
        }
    }

    @Test
    void whatFollowsIsTheNextToTheSameTargetAboutTheSameRecord() {
        var first = waits(HANDLER, N_1);
        waits(HANDLER, N_2);
        waits(WEBHOOK, N_1);
        waits(HANDLER, null);
        var next = waits(HANDLER, N_1);
        var last = waits(HANDLER, N_1);

        assertThat(following(done(first))).contains(next.number());
        assertThat(following(done(next))).contains(last.number());
        assertThat(following(done(last))).isEmpty();
    }

    @Test
    void whatIsAboutNoRecordIsFollowedByNothing() {
        var first = waits(HANDLER, null);
        waits(HANDLER, null);

        assertThat(following(done(first))).isEmpty();
    }

    @Test
    void nothingOvertakesWhatIsTriedAgainLater() {
        var first = waits(HANDLER, N_1);
        waits(HANDLER, N_1);

        var failed = put(first, State.WAITING, NOW.plusSeconds(5));

        assertThat(following(failed)).isEmpty();
    }

    @Test
    void whatSomebodyHoldsIsLeftToHimUntilHisTimeIsOver() {
        var first = waits(WEBHOOK, N_1);
        var next = waits(WEBHOOK, N_1);
        done(first);
        var until = NOW.plus(Duration.ofSeconds(7));
        write(transaction -> {
            events().hold(transaction, next.number(), until);
            return true;
        });

        assertThat(following(first)).isEmpty();
        assertThat(claimed(next, NOW)).isEmpty();
        assertThat(claimed(next, until)).contains(next);
        assertThat(List.of(dueAt(NOW), dueAt(until))).containsExactly(List.of(), List.of(next));
    }

    private Optional<Delivery> claimed(Delivery delivery, Instant now) {
        return write(transaction -> events().claim(transaction, delivery.number(), now));
    }

    private List<Delivery> dueAt(Instant now) {
        try (var session = storage.snapshot()) {
            return events().due(session, Target.Kind.WEBHOOK, now, 10);
        }
    }
}
