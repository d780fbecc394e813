package sandpiper.engine.react;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.argThat;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;
import static sandpiper.engine.Yard.faults;
import static sandpiper.engine.Yard.messages;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;

/** What rules, functions and handlers do within a change, and what they may not. */
class ReactionsTest {
    private static final String TANK =
            """
            object: Tank
            key: code
            fields:
              code: { type: text }
              level: { type: integer, default: 0 }
              alarm: { type: boolean, default: false }
              a: { type: integer, default: 0 }
              b: { type: integer, default: 0 }
            parts:
              readings:
                fields:
                  value: { type: integer }
            rules:
              sounds:
                on: change of level
                when: level > 90
                then: |
                  set alarm = true
                  emit Full { tank: code }
              quiet:
                on: change of level
                when: level < 50
                then: |
                  set alarm = false
              ping:
                on: change of a
                when: a > 0
                then: |
                  set b = a + 1
              pong:
                on: change of b
                when: b > 0
                then: |
                  set a = b + 1
              notes:
                on: change of alarm
                when: alarm
                then: |
                  create Ticket { tank: this, text: "Tank " + code + " is full" }
            functions:
              pour:
                parameters: { litres: { type: integer, required: true } }
                returns: integer
                body: |
                  require litres > 0 else reject "Pour something." at litres
                  set level = level + litres
                  create readings { value: level }
                  return level
              close:
                body: |
                  for each ticket in tickets
                    update ticket { done: true }
                  end
              own:
                rights: own
                body: |
                  for each ticket in tickets
                    update ticket { done: true }
                  end
            """;

    private static final String TICKET =
            """
            object: Ticket
            key: number
            numbering: { field: number, pattern: "T-{sequence:3}" }
            fields:
              number: { type: text }
              tank: { type: reference, to: Tank, inverse: tickets }
              text: { type: text }
              done: { type: boolean, default: false }
            """;

    private static final String EVENTS =
            """
            event: Full
            fields:
              tank: { type: text }
            """;

    private Yard yard;

    @BeforeEach
    void make() {
        yard = Yard.with(Map.of("events/full.yaml", EVENTS), TANK, TICKET);
        yard.create("Tank", "code", "T1");
    }

    @Nested
    class Rules {
        @Test
        void reactToWhatTheyWaitForUntilNothingChanges() {
            yard.change("Tank", "T1", "level", 95L);

            assertThat(yard.value("Tank", "T1", "alarm")).isEqualTo(1L);
            var tickets = yard.records.all(yard.object("Ticket"));
            assertThat(tickets).hasSize(1);
            assertThat(yard.records.values(yard.object("Ticket"), "T-001"))
                    .containsEntry("text", "Tank T1 is full")
                    .containsEntry("done", 0L);
        }

        @Test
        void doNotReactToWhatTheyDoNotWaitFor() {
            yard.change("Tank", "T1", "level", 60L);

            assertThat(yard.value("Tank", "T1", "alarm")).isEqualTo(0L);
            assertThat(yard.records.all(yard.object("Ticket"))).isEmpty();
        }

        @Test
        void thatSetEachOtherOffAreStoppedAndNamed() {
            var outcome = yard.change("Tank", "T1", "a", 1L);

            assertThat(faults(outcome))
                    .singleElement()
                    .satisfies(fault -> {
                        assertThat(fault.code()).isEqualTo(RecordCode.RULE_LOOP);
                        assertThat(fault.message()).contains("ping", "pong", "10 times");
                    });
        }

        @Test
        void tellTheirEventsInTheSameTransaction() {
            when(yard.listeners.hear(any(), any())).thenReturn(true);

            yard.change("Tank", "T1", "level", 95L);

            verify(yard.events)
                    .add(
                            org.mockito.ArgumentMatchers.eq(yard.transaction),
                            argThat(event ->
                                    event.name().equals("Full")
                                            && event.data().equals(Map.of("tank", "T1"))));
        }

        @Test
        void areNotHeardWhenNobodyListensToChanges() {
            yard.change("Tank", "T1", "level", 10L);

            verify(yard.events, never()).add(any(), any());
        }
    }

    @Nested
    class Functions {
        @Test
        void giveBackWhatTheyCameTo() {
            var done = (Outcome.Success) yard.call("Tank", "T1", "pour", "litres", 5L);

            assertThat(done.result()).isEqualTo(new Outcome.Result("pour", 5L));
            assertThat(yard.value("Tank", "T1", "level")).isEqualTo(5L);
            assertThat(yard.records.all(yard.object("Tank")).getFirst().items().getFirst())
                    .hasSize(1);
        }

        @Test
        void refuseInTheirOwnWordsAndChangeNothing() {
            var outcome = yard.call("Tank", "T1", "pour", "litres", -1L);

            assertThat(messages(outcome)).containsExactly("Pour something.");
            assertThat(faults(outcome).getFirst().path()).hasToString("litres");
            verify(yard.runs, never()).add(any(), any());
        }

        @Test
        void takeOnlyTheirParameters() {
            assertThat(messages(yard.call("Tank", "T1", "pour", "liters", 1L)))
                    .anySatisfy(message -> assertThat(message).contains("Did you mean litres?"))
                    .anySatisfy(message -> assertThat(message).contains("is required"));
            assertThat(faults(yard.call("Tank", "T1", "pour", "litres", "many")))
                    .extracting(fault -> fault.path().toString())
                    .containsExactly("litres");
        }

        @Test
        void areWrittenIntoTheLogOfRunsWithWhatTheyGaveBack() {
            yard.call("Tank", "T1", "pour", "litres", 5L);

            verify(yard.runs)
                    .add(
                            any(),
                            argThat(run ->
                                    run.name().equals("Tank.pour")
                                            && run.key().equals("T1")
                                            && run.done()
                                            && run.said().equals("5")));
        }

        private Outcome callAs(Actor actor, String function) {
            return yard.run(
                    new Request(
                            new RecordCommand.Call(
                                    yard.object("Tank"), "T1", function, Map.of(), null),
                            actor,
                            "test",
                            false));
        }

        private Actor with(ObjectGrant... grants) {
            return new Actor(Actor.Kind.USER, "bob", Set.of(), List.of(), List.of(grants));
        }

        @Test
        void changeOtherRecordsOnlyWithTheRightsOfTheCaller() {
            yard.change("Tank", "T1", "level", 95L);
            var mayTanks = new ObjectGrant("Tank", Set.of(Action.EDIT), null, List.of(), List.of());
            var mayTickets =
                    new ObjectGrant("Ticket", Set.of(Action.EDIT), null, List.of(), List.of());

            assertThat(faults(callAs(with(mayTanks), "close")))
                    .extracting(fault -> fault.code())
                    .containsExactly(RecordCode.NOT_YOURS);
            assertThat(callAs(with(mayTanks, mayTickets), "close"))
                    .isInstanceOf(Outcome.Done.class);
            assertThat(yard.value("Ticket", "T-001", "done")).isEqualTo(1L);
        }

        @Test
        void withRightsOfTheirOwnDoNotAsk() {
            yard.change("Tank", "T1", "level", 95L);

            assertThat(callAs(with(), "own")).isInstanceOf(Outcome.Done.class);
            assertThat(yard.value("Ticket", "T-001", "done")).isEqualTo(1L);
        }
    }
}
