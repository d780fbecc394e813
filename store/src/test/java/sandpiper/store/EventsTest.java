package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.delivery.Backoff;
import sandpiper.engine.event.Delivery;
import sandpiper.engine.event.Event;
import sandpiper.engine.port.EventStorage;

/** Events, the handlers that hear them, and schedules, on real tables with a clock that is set. */
class EventsTest {
    private static final String ENDED =
            """
            event: StayEnded
            about: Stay
            fields:
              nights: { type: integer, required: true }
              berth:  { type: reference, to: Berth }
            """;

    private static final String BERTH =
            """
            object: Berth
            key: [code]
            fields:
              code:  { type: text, length: 10 }
              left:  { type: integer, default: 0 }
              fails: { type: boolean, default: false }
            """;

    private static final String STAY =
            """
            object: Stay
            key: [number]
            fields:
              number:    { type: text, length: 10 }
              berth:     { type: reference, to: Berth }
              nights:    { type: integer, default: 1 }
              departure: { type: date }
              heard:     { type: integer, default: 0 }
              echoes:    { type: integer, default: 0 }
              reminded:  { type: integer, default: 0 }
            functions:
              end:
                external: true
                body: |
                  emit StayEnded { nights: nights, berth: berth }
              endTwice:
                external: true
                body: |
                  emit StayEnded { nights: nights, berth: berth }
                  emit StayEnded { nights: nights + 1, berth: berth }
                  require nights < 5 else reject "Too long."
              again:
                external: true
                body: set nights = nights + 1
            handlers:
              countBerth:
                on: StayEnded
                when: event.berth != null
                then: |
                  require not(event.berth.fails) else reject "The berth's book is closed."
                  update event.berth { left: event.berth.left + event.nights }
              together:
                on: StayEnded
                batch: true
                then: |
                  for each one in events
                    note one.nights
                  end
                  create Log { text: "together " + string(count(events)) }
              within:
                on: StayEnded
                run: with
                when: event.nights > 100
                then: reject "Nobody stays that long."
              echo:
                on: Stay.changed
                when: nights = 42
                then: set echoes = echoes + 1
              hearChange:
                on: Stay.changed
                when: list contains(event.changed, "nights")
                then: set heard = heard + 1
            schedules:
              remind:
                on: 2 days before departure
                at: "06:00"
                where: nights < 50
                then: set reminded = reminded + 1
              hourly:
                every: "0 * * * *"
                missed: skip
                where: number = "S-9"
                then: set heard = heard + 100
            """;

    private static final String LOG =
            """
            object: Log
            fields:
              text: { type: text }
            """;

    private static final Backoff QUICK =
            new Backoff(List.of(Duration.ofMillis(30), Duration.ofMillis(30)));

    @TempDir Path folder;
    private final SetClock clock = new SetClock();
    private Harness marina;

    /** A clock that goes on from a moment that can be set. */
    private static final class SetClock extends Clock {
        private volatile Instant from = Instant.parse("2026-05-01T10:00:00Z");
        private volatile long since = System.nanoTime();

        void set(String moment) {
            from = Instant.parse(moment);
            since = System.nanoTime();
        }

        @Override
        public ZoneId getZone() {
            return ZoneOffset.UTC;
        }

        @Override
        public Clock withZone(ZoneId zone) {
            return this;
        }

        @Override
        public Instant instant() {
            return from.plusNanos(System.nanoTime() - since);
        }
    }

    @BeforeEach
    void open() {
        marina = new Harness(folder, clock, QUICK);
        var files = new HashMap<String, String>();
        files.put("marina/package.yaml", "package: marina\nversion: 1.0\n");
        files.put("marina/objects/berth.yaml", BERTH);
        files.put("marina/objects/stay.yaml", STAY);
        files.put("marina/objects/log.yaml", LOG);
        files.put("marina/events/stay-ended.yaml", ENDED);
        marina.release(files);
        marina.create("Berth", "code", "N-1");
        marina.create("Stay", "number", "S-1", "berth", "N-1", "nights", 3L);
    }

    @AfterEach
    void close() {
        marina.close();
    }

    private static void eventually(BooleanSupplier wanted) {
        long deadline = System.nanoTime() + Duration.ofSeconds(10).toNanos();
        while (!wanted.getAsBoolean()) {
            assertThat(System.nanoTime()).as("waited too long").isLessThan(deadline);
            Thread.onSpinWait();
        }
    }

    private List<EventStorage.Delivered> deliveries(String target) {
        return marina.engine
                .deliveries()
                .deliveries(new EventStorage.DeliveryFilter(target, null, "", 100));
    }

    private void settle() {
        eventually(this::isSettled);
    }

    /** Both at the same moment: what is handed on waits, and what waits may raise more. */
    private boolean isSettled() {
        var storage = marina.storage;
        try (var session = storage.snapshot()) {
            return !storage.events().areArriving(session)
                    && storage.events().position(session, "deliveries")
                            == storage.events().newest(session)
                    && storage.events().count(session, Delivery.State.WAITING) == 0;
        }
    }

    /** Waits until the schedules of the release are known, from which moment they count. */
    private void untilScheduled() {
        var storage = marina.storage;
        eventually(() -> {
            try (var session = storage.snapshot()) {
                return storage.schedules().find(session, "Stay.hourly").isPresent();
            }
        });
    }

    @Test
    void anEventIsStoredWithItsChangeAndHandled() {
        marina.call("Stay", "S-1", "end");

        settle();

        assertThat(marina.text("Berth", "N-1", "left")).isEqualTo("3");
        assertThat(marina.engine.deliveries().latest("StayEnded", 9))
                .singleElement()
                .satisfies(event -> {
                    assertThat(event.data()).isEqualTo(Map.of("nights", 3L, "berth", "N-1"));
                    assertThat(event.key()).isEqualTo("S-1");
                    assertThat(event.by()).isEqualTo("system");
                });
    }

    @Test
    void whatIsRefusedRaisesNothing() {
        marina.change("Stay", "S-1", "nights", 6L);
        settle();
        long before = marina.engine.deliveries().newest();

        var refused = marina.call("Stay", "S-1", "endTwice");

        assertThat(Harness.messages(refused)).containsExactly("Too long.");
        assertThat(marina.engine.deliveries().newest()).isEqualTo(before);
    }

    @Test
    void aBatchTakesAllEventsOfOneChange() {
        marina.call("Stay", "S-1", "endTwice");

        settle();

        assertThat(deliveries("handler Stay.together")).hasSize(2);
        assertThat(marina.engine.records().latestChanges(20))
                .filteredOn(entry -> entry.object().equals("Log"))
                .singleElement()
                .satisfies(entry ->
                        assertThat(entry.changes())
                                .anyMatch(change -> "together 2".equals(change.after())));
        assertThat(marina.text("Berth", "N-1", "left")).isEqualTo("7");
    }

    @Test
    void aHandlerThatIsPartOfTheChangeCanRefuseIt() {
        marina.change("Stay", "S-1", "nights", 101L);

        assertThat(Harness.messages(marina.call("Stay", "S-1", "end")))
                .containsExactly("Nobody stays that long.");
    }

    @Test
    void aHandlerThatFailsIsTriedAgainParkedAndRedelivered() {
        marina.change("Berth", "N-1", "fails", true);
        marina.call("Stay", "S-1", "end");

        eventually(() ->
                deliveries("handler Stay.countBerth").stream()
                        .anyMatch(one -> one.delivery().state() == Delivery.State.PARKED));
        var parked = deliveries("handler Stay.countBerth").getFirst().delivery();
        assertThat(parked.tries()).isEqualTo(3);
        assertThat(parked.said()).contains("The berth's book is closed.");
        assertThat(parked.trace()).isNotNull();
        assertThat(marina.text("Berth", "N-1", "left")).isEqualTo("0");

        marina.change("Berth", "N-1", "fails", false);
        marina.engine.deliveries().redeliver(parked.number());
        settle();

        assertThat(marina.text("Berth", "N-1", "left")).isEqualTo("3");
        assertThat(deliveries("handler Stay.countBerth").getFirst().delivery().state())
                .isEqualTo(Delivery.State.DONE);
    }

    @Test
    void changesTellThatTheyHappenedAndWhatChanged() {
        marina.call("Stay", "S-1", "again");

        settle();

        assertThat(marina.text("Stay", "S-1", "heard")).isEqualTo("1");
        assertThat(marina.engine.deliveries().latest("Stay.changed", 9))
                .extracting(Event::name, event -> event.data().get("changed"))
                .contains(tuple("Stay.changed", List.of("nights")));
    }

    @Test
    void handlersThatSetEachOtherOffAreStopped() {
        marina.change("Stay", "S-1", "nights", 42L);

        eventually(() ->
                deliveries("handler Stay.echo").stream()
                        .anyMatch(one -> one.delivery().state() == Delivery.State.PARKED));

        assertThat(deliveries("handler Stay.echo"))
                .filteredOn(one -> one.delivery().state() == Delivery.State.PARKED)
                .allSatisfy(one ->
                        assertThat(one.delivery().said())
                                .contains("10 events have led to each other"));
    }

    @Test
    void aScheduleRunsOnceForEachRecordOnItsDay() {
        untilScheduled();
        marina.create("Stay", "number", "S-2", "departure", "2026-05-05");
        marina.create("Stay", "number", "S-3", "departure", "2026-05-08");
        marina.create("Stay", "number", "S-4", "departure", "2026-05-05", "nights", 60L);

        clock.set("2026-05-03T06:00:01Z");
        eventually(() -> marina.text("Stay", "S-2", "reminded").equals("1"));
        settle();

        assertThat(marina.text("Stay", "S-3", "reminded")).isEqualTo("0");
        assertThat(marina.text("Stay", "S-4", "reminded")).isEqualTo("0");
        assertThat(deliveries("schedule Stay.remind")).hasSize(1);
    }

    @Test
    void daysThatWereMissedAreMadeUpForAfterARestart() {
        untilScheduled();
        marina.create("Stay", "number", "S-2", "departure", "2026-05-05");
        marina.create("Stay", "number", "S-9", "departure", "2026-05-06");
        marina.close();

        clock.set("2026-05-04T09:30:00Z");
        marina = new Harness(folder, clock, QUICK);
        eventually(() -> marina.text("Stay", "S-9", "reminded").equals("1"));
        settle();

        assertThat(marina.text("Stay", "S-2", "reminded")).isEqualTo("1");
        // The hours in between are left out, as the schedule says.
        assertThat(marina.text("Stay", "S-9", "heard")).isEqualTo("0");

        clock.set("2026-05-04T10:00:01Z");
        eventually(() -> marina.text("Stay", "S-9", "heard").equals("100"));
    }

    @Test
    void aClockThatJumpsGivesEachRecordItsTurnOnce() {
        untilScheduled();
        for (int day = 3; day <= 9; day++) {
            marina.create("Stay", "number", "D-" + day, "departure", "2026-05-0" + day);
        }

        clock.set("2026-05-07T12:00:00Z");
        eventually(() -> marina.text("Stay", "D-9", "reminded").equals("1"));
        settle();
        clock.set("2026-05-02T12:00:00Z");
        marina.create("Stay", "number", "D-X", "departure", "2026-05-05");
        settle();
        clock.set("2026-05-07T12:00:01Z");
        marina.create("Stay", "number", "D-Z", "departure", "2026-05-10");
        clock.set("2026-05-08T06:00:01Z");
        eventually(() -> marina.text("Stay", "D-Z", "reminded").equals("1"));
        settle();

        // The day of D-3 was over before there was a schedule.
        assertThat(marina.text("Stay", "D-3", "reminded")).isEqualTo("0");
        for (int day = 4; day <= 9; day++) {
            assertThat(marina.text("Stay", "D-" + day, "reminded")).isEqualTo("1");
        }
    }

    @Test
    void aTryThatWaitsForAnHourComesAfterAJumpAndOnlyOnce() {
        marina.close();
        var hourly = new Backoff(List.of(Duration.ofHours(1), Duration.ofHours(1)));
        marina = new Harness(folder, clock, hourly);
        marina.change("Berth", "N-1", "fails", true);
        marina.call("Stay", "S-1", "end");
        eventually(() -> tries() == 1);

        clock.set("2026-04-30T10:00:00Z");
        marina.call("Stay", "S-1", "again");
        eventually(() -> marina.text("Stay", "S-1", "heard").equals("1"));
        assertThat(tries()).isEqualTo(1);

        marina.change("Berth", "N-1", "fails", false);
        clock.set("2026-05-03T10:00:00Z");
        eventually(() -> marina.text("Berth", "N-1", "left").equals("3"));
        settle();

        assertThat(tries()).isEqualTo(2);
        assertThat(marina.text("Berth", "N-1", "left")).isEqualTo("3");
    }

    private int tries() {
        return deliveries("handler Stay.countBerth").stream()
                .mapToInt(one -> one.delivery().tries())
                .sum();
    }
}
