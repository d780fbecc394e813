package sandpiper.engine.delivery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.argThat;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.inOrder;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.event.Delivery;
import sandpiper.engine.event.Delivery.State;
import sandpiper.engine.event.Delivery.Target;
import sandpiper.engine.event.Event;
import sandpiper.engine.event.Webhook;
import sandpiper.engine.outside.Outside;
import sandpiper.engine.port.EventStorage;
import sandpiper.engine.port.ScheduleStorage;
import sandpiper.engine.port.ScheduleStorage.Progress;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.write.ReactionWrites;
import sandpiper.engine.writer.WriteMetrics;
import sandpiper.engine.writer.Writer;
import sandpiper.testing.SettableClock;

/** Events on their way, and schedules whose time comes, on a clock that tests set. */
class DeliveryTest {
    private static final String TANK =
            """
            object: Tank
            key: code
            fields:
              code: { type: text }
              level: { type: integer, default: 0 }
            handlers:
              later:
                on: Full
                then: set level = 0
              within:
                on: Full
                run: with
                then: set level = 1
            schedules:
              hourly:
                every: "0 * * * *"
                missed: skip
                then: set level = level + 1
              nightly:
                every: "30 2 * * *"
                then: set level = level + 1
            """;

    private final Yard yard =
            Yard.with(
                    Map.of(
                            "events/full.yaml",
                            """
                            event: Full
                            about: Tank
                            fields:
                              level: { type: integer }
                            """),
                    TANK);
    private final EventStorage events = mock(EventStorage.class);
    private final ScheduleStorage schedules = mock(ScheduleStorage.class);
    private final Storage storage = mock(Storage.class);
    private final Transaction transaction = mock(Transaction.class);
    private final SettableClock clock = new SettableClock(Instant.parse("2026-05-01T12:00:00Z"));
    private Writer writer;

    @BeforeEach
    void open() {
        when(storage.events()).thenReturn(events);
        when(storage.schedules()).thenReturn(schedules);
        when(storage.snapshot()).thenReturn(transaction);
        when(storage.begin(anyBoolean())).thenReturn(transaction);
        writer = Writer.of(storage, 100, WriteMetrics.NONE);
    }

    @AfterEach
    void close() {
        writer.close();
    }

    private Event full(long number, long level) {
        return new Event(
                number,
                new UUID(0, number),
                "Full",
                Event.Kind.RAISED,
                new UUID(1, 1),
                "Tank",
                new UUID(2, 2),
                "T1",
                clock.instant(),
                "ann",
                "test",
                0,
                Map.of("level", level));
    }

    private static Webhook webhook(@Nullable String filter, boolean disabled) {
        return new Webhook(
                "ledger",
                "Ledger",
                "https://l/",
                List.of("Full"),
                filter,
                "",
                null,
                null,
                disabled);
    }

    @Nested
    class Telling {
        private final Listening listening = new Listening();
        private final FanOut fanOut = new FanOut(storage, () -> yard.live, listening, clock);

        private void raised(Event... raised) {
            when(events.position(any(), eq("deliveries"))).thenReturn(6L);
            when(events.after(any(), eq(6L), anyInt())).thenReturn(List.of(raised));
            when(events.claimPosition(any(), eq("deliveries"))).thenReturn(OptionalLong.of(6));
        }

        private List<String> deliveries() {
            return fanOut.next().deliveries().stream()
                    .map(one ->
                            "%d %s %s".formatted(one.event(), one.target().written(), one.state()))
                    .toList();
        }

        @Test
        void handlersOutsideOfTheChangeHearInTheOrderOfTheEvents() {
            raised(full(7, 1), full(8, 2));

            assertThat(deliveries())
                    .containsExactly(
                            "7 handler Tank.later WAITING", "8 handler Tank.later WAITING");
        }

        @Test
        void webhooksHearWhatTheirFilterLetsThrough() {
            listening.webhooks(List.of(webhook("level > 5", false)));
            raised(full(7, 5), full(8, 6));

            assertThat(deliveries())
                    .filteredOn(one -> one.contains("webhook"))
                    .containsExactly("8 webhook ledger WAITING");
        }

        @Test
        void webhooksThatAreDisabledHearNothing() {
            listening.webhooks(List.of(webhook(null, true)));
            raised(full(7, 5));

            assertThat(deliveries()).noneMatch(one -> one.contains("webhook"));
        }

        @Test
        void whatAFilterThatNoLongerFitsWouldDecideWaitsForAPerson() {
            listening.webhooks(List.of(webhook("height > 5", false)));
            raised(full(7, 5));

            var delivery =
                    fanOut.next().deliveries().stream()
                            .filter(one -> one.target().kind() == Target.Kind.WEBHOOK)
                            .findFirst()
                            .orElseThrow();
            assertThat(delivery.state()).isEqualTo(State.PARKED);
            assertThat(delivery.said()).startsWith("The webhook's filter no longer fits: ");
        }

        @Test
        void howFarItHasComeIsStoredWithTheDeliveries() {
            raised(full(7, 1), full(8, 2));
            var step = fanOut.next();

            fanOut.store(transaction, step);

            var order = inOrder(events);
            order.verify(events, times(2)).addDelivery(eq(transaction), any(Delivery.class));
            order.verify(events).setPosition(transaction, "deliveries", 8);
        }

        @Test
        void whatAnotherProcessHandedOnIsNotHandedOnAgain() {
            raised(full(7, 1), full(8, 2));
            var step = fanOut.next();

            when(events.claimPosition(any(), eq("deliveries"))).thenReturn(OptionalLong.of(8));
            assertThat(fanOut.store(transaction, step)).isFalse();
            when(events.claimPosition(any(), eq("deliveries"))).thenReturn(OptionalLong.empty());
            assertThat(fanOut.store(transaction, step)).isFalse();

            verify(events, never()).addDelivery(any(), any());
        }

        @Test
        void nothingToTellIsNothingToDo() {
            raised();

            assertThat(fanOut.next().isEmpty()).isTrue();
        }

        @Test
        void whoIsTestedAloneHearsOfIt() {
            var test =
                    new Event(
                            9,
                            new UUID(0, 9),
                            "Full",
                            Event.Kind.TEST,
                            new UUID(1, 1),
                            null,
                            null,
                            null,
                            clock.instant(),
                            "ann",
                            "test",
                            0,
                            Map.of("webhook", "ledger"));
            listening.webhooks(List.of(webhook(null, false)));
            raised(test);

            assertThat(deliveries()).containsExactly("9 webhook ledger WAITING");
        }

        @Test
        void whatNobodyHearsNeedNotBeRaised() {
            assertThat(listening.hear(yard.live, "Full")).isTrue();
            assertThat(listening.hear(yard.live, "Tank.changed")).isFalse();
        }
    }

    @Nested
    class Doing {
        private final ReactionWrites writes = mock(ReactionWrites.class);
        private final List<Long> handled = new ArrayList<>();
        private Reactions reactions;

        @BeforeEach
        void make() {
            reactions =
                    new Reactions(
                            storage,
                            () -> yard.live,
                            writer,
                            writes,
                            mock(Outside.class),
                            Backoff.OF_HANDLERS,
                            clock);
        }

        private void waitAboutOneRecord(long... numbers) {
            var waiting = new ArrayDeque<Delivery>();
            for (long number : numbers) {
                var event = full(number, number);
                var delivery =
                        new Delivery(
                                number,
                                number,
                                new Target(Target.Kind.HANDLER, "Tank.later"),
                                event.record(),
                                State.WAITING,
                                0,
                                clock.instant(),
                                null,
                                "",
                                null);
                waiting.add(delivery);
                when(events.claim(any(), eq(number), any())).thenReturn(Optional.of(delivery));
                when(events.find(any(), eq(number))).thenReturn(Optional.of(event));
            }
            when(events.due(any(), eq(Target.Kind.HANDLER), any(), anyInt()))
                    .thenReturn(List.of(waiting.getFirst()));
            when(events.following(any(), any(), any()))
                    .thenAnswer(_ -> Optional.ofNullable(waiting.peek()));
            when(writes.handle(any(), any(), any(), any()))
                    .thenAnswer(call -> {
                        List<Event> told = call.getArgument(3);
                        handled.add(told.getFirst().number());
                        waiting.remove();
                        return new Outcome.Returned(
                                yard.live.release().object("Tank"), List.of(), null, null);
                    });
        }

        @Test
        void whatWaitedForOneThatIsDoneComesWithoutAnotherLook() {
            waitAboutOneRecord(7, 8, 9);

            assertThat(reactions.run()).isTrue();

            assertThat(handled).containsExactly(7L, 8L, 9L);
            verify(events, times(1)).due(any(), eq(Target.Kind.HANDLER), any(), anyInt());
        }

        @Test
        void whatAnotherProcessHasIsLeftToItWithWhatWaitsForIt() {
            waitAboutOneRecord(7, 8);
            when(events.claim(any(), eq(7L), any())).thenReturn(Optional.empty());

            assertThat(reactions.run()).as("so it waits before it looks again").isFalse();

            assertThat(handled).isEmpty();
        }
    }

    @Nested
    class Times {
        private Timetable timetable;

        @BeforeEach
        void make() {
            timetable = new Timetable(storage, () -> yard.live, writer, clock);
        }

        private void waits(String name, String since) {
            stands(new Progress("Tank." + name, Instant.parse(since), null, 0));
        }

        private void stands(Progress progress) {
            var now = new AtomicReference<>(progress);
            when(schedules.find(any(), eq(progress.name())))
                    .thenAnswer(_ -> Optional.of(now.get()));
            when(schedules.claim(any(), eq(progress.name())))
                    .thenAnswer(_ -> Optional.of(now.get()));
            doAnswer(
                            call -> {
                                now.set(call.getArgument(1));
                                return null;
                            })
                    .when(schedules)
                    .put(any(), argThat(put -> put.name().equals(progress.name())));
        }

        private void farOff(String name) {
            waits(name, "2100-01-01T00:00:00Z");
        }

        private void verifyKept(String name, String ranFor, @Nullable String running) {
            verify(schedules)
                    .put(
                            any(),
                            eq(
                                    new Progress(
                                            "Tank." + name,
                                            Instant.parse(ranFor),
                                            running == null ? null : Instant.parse(running),
                                            0)));
        }

        @Test
        void aScheduleSeenForTheFirstTimeBeginsNow() {
            when(schedules.find(any(), any())).thenReturn(Optional.empty());
            when(schedules.claim(any(), any())).thenReturn(Optional.empty());

            assertThat(timetable.run()).isFalse();
            verifyKept("hourly", "2026-05-01T12:00:00Z", null);
        }

        @Test
        void whatIsNotYetDueWaits() {
            waits("hourly", "2026-05-01T12:00:00Z");
            farOff("nightly");
            clock.set(Instant.parse("2026-05-01T12:59:59Z"));

            assertThat(timetable.run()).isFalse();
            verify(schedules, never()).put(any(), any());
        }

        @Test
        void aTimeThatAnotherProcessHasTakenIsLeftToIt() {
            waits("hourly", "2026-05-01T12:00:00Z");
            farOff("nightly");
            clock.set(Instant.parse("2026-05-01T13:00:01Z"));
            when(schedules.claim(any(), eq("Tank.hourly")))
                    .thenReturn(
                            Optional.of(
                                    new Progress(
                                            "Tank.hourly",
                                            Instant.parse("2026-05-01T12:00:00Z"),
                                            Instant.parse("2026-05-01T13:00:00Z"),
                                            0)));

            timetable.run();

            verify(schedules, never()).put(any(), any());
        }

        @Test
        void whatIsDueRunsForItsTime() {
            waits("hourly", "2026-05-01T12:00:00Z");
            farOff("nightly");
            clock.set(Instant.parse("2026-05-01T13:00:01Z"));

            assertThat(timetable.run()).isTrue();
            verifyKept("hourly", "2026-05-01T12:00:00Z", "2026-05-01T13:00:00Z");
        }

        @Test
        void whatWasMissedIsLeftOutWhereThatIsSaid() {
            waits("hourly", "2026-05-01T02:00:00Z");
            farOff("nightly");
            clock.set(Instant.parse("2026-05-01T12:30:00Z"));

            timetable.run();

            verifyKept("hourly", "2026-05-01T12:00:00Z", null);
        }

        @Test
        void whatWasMissedElsewhereIsDoneOnceForTheLatestTime() {
            farOff("hourly");
            waits("nightly", "2026-04-20T12:00:00Z");

            timetable.run();

            verifyKept("nightly", "2026-04-20T12:00:00Z", "2026-05-01T02:30:00Z");
        }

        @Test
        void eachRecordIsDueOnceAndTheRunEnds() {
            yard.create("Tank", "code", "T1");
            yard.create("Tank", "code", "T2");
            waits("hourly", "2026-05-01T12:00:00Z");
            farOff("nightly");
            clock.set(Instant.parse("2026-05-01T13:00:01Z"));

            timetable.run();
            timetable.run();

            verify(events, times(2)).add(any(), any(Event.class));
            verifyKept("hourly", "2026-05-01T13:00:00Z", null);
            assertThat(timetable.run()).isFalse();
        }
    }
}
