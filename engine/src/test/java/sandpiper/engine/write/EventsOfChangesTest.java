package sandpiper.engine.write;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.atLeast;
import static org.mockito.Mockito.clearInvocations;
import static org.mockito.Mockito.mockingDetails;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import sandpiper.engine.Yard;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.event.Event;

/** What a change tells by itself, and what steps tell, beside it in the same transaction. */
class EventsOfChangesTest {
    private static final String JOB =
            """
            object: Job
            key: code
            removal: delete
            lifecycle:
              initial: Asked
              states: [Asked, Begun, Done]
              transitions:
                begin: { from: Asked, to: Begun }
                finish: { from: Begun, to: Done }
            fields:
              code: { type: text }
              size: { type: integer, default: 1 }
              twice: { type: integer, formula: size * 2 }
            parts:
              steps:
                fields: { what: { type: text } }
            functions:
              rush:
                on: record
                external: true
                body: |
                  transition begin
                  transition finish
              shout:
                on: record
                external: true
                body: |
                  emit Shouted { word: "ahoy", size: size }
                  emit Shouted { word: "again" }
            """;

    private static final String CRANE =
            "object: Crane\n"
                    + "key: code\n"
                    + "fields: { code: { type: text }, reach: { type: integer } }\n";

    private static final String SHOUTED =
            """
            event: Shouted
            about: Job
            fields:
              word: { type: text, required: true }
              size: { type: integer }
            """;

    private Yard yard;

    @BeforeEach
    void make() {
        yard = Yard.with(Map.of("events/shouted.yaml", SHOUTED), JOB, CRANE);
        heard(Set.of());
        yard.create("Job", "code", "J");
        yard.create("Crane", "code", "K");
        clearInvocations(yard.events);
    }

    private void heard(Set<String> names) {
        when(yard.listeners.hear(any(), anyString()))
                .thenAnswer(call -> names.contains((String) call.getArgument(1)));
    }

    private List<Event> told() {
        if (mockingDetails(yard.events).getInvocations().isEmpty()) {
            return List.of();
        }
        var events = ArgumentCaptor.forClass(Event.class);
        verify(yard.events, atLeast(0)).add(any(), events.capture());
        return new ArrayList<>(events.getAllValues());
    }

    private List<String> names() {
        return told().stream().map(Event::name).toList();
    }

    @Test
    void whatNobodyHearsIsNotTold() {
        yard.change("Job", "J", "size", 2L);
        yard.transit("Job", "J", "begin");

        verify(yard.events, never()).add(any(), any());
    }

    @Test
    void aNewRecordIsToldWithItsKeyAndVersion() {
        heard(Set.of("Job.created", "Job.changed"));
        yard.create("Job", "code", "N");

        assertThat(names()).containsExactly("Job.created");
        assertThat(told().getFirst().data()).containsEntry("key", "N").containsEntry("version", 1L);
        assertThat(told().getFirst().object()).isEqualTo("Job");
        assertThat(told().getFirst().by()).isEqualTo("ann");
    }

    @Test
    void aChangeNamesWhatSomebodyChangedAndNotWhatFollows() {
        heard(Set.of("Job.changed"));
        yard.change("Job", "J", "size", 4L, "steps", List.of(Map.of("what", "cut")));

        assertThat(names()).containsExactly("Job.changed");
        assertThat(told().getFirst().data())
                .containsEntry("changed", List.of("size", "steps"))
                .containsEntry("version", 2L);
    }

    @Test
    void aChangeThatChangesNothingIsNone() {
        heard(Set.of("Job.changed"));
        yard.change("Job", "J", "size", 1L);

        assertThat(told()).isEmpty();
    }

    @Test
    void aRecordThatIsRetiredOrComesBackIsTold() {
        heard(Set.of("Crane.retired", "Crane.restored", "Crane.created"));
        yard.retire("Crane", "K");
        yard.run(new RecordCommand.Restore(yard.object("Crane"), "K"));

        assertThat(names()).containsExactly("Crane.retired", "Crane.restored");
    }

    @Test
    void aRecordThatIsGoneForGoodIsTold() {
        heard(Set.of("Job.deleted", "Job.retired"));
        yard.retire("Job", "J");

        assertThat(names()).containsExactly("Job.deleted");
        assertThat(told().getFirst().data()).containsEntry("key", "J");
    }

    @Test
    void aTransitionTellsFromWhereToWhere() {
        heard(Set.of("Job.begin"));
        yard.transit("Job", "J", "begin");

        assertThat(told().getFirst().data())
                .containsEntry("from", "Asked")
                .containsEntry("to", "Begun");
    }

    @Test
    void severalTransitionsAreEachToldInTheirOrder() {
        heard(Set.of("Job.begin", "Job.finish"));
        yard.call("Job", "J", "rush");

        assertThat(names()).containsExactly("Job.begin", "Job.finish");
        assertThat(told().get(0).data())
                .containsEntry("from", "Asked")
                .containsEntry("to", "Begun");
        assertThat(told().get(1).data()).containsEntry("from", "Begun").containsEntry("to", "Done");
    }

    @Test
    void whatStepsTellIsToldWhoeverHears() {
        yard.call("Job", "J", "shout");

        assertThat(names()).containsExactly("Shouted", "Shouted");
        assertThat(told().get(0).data()).containsEntry("word", "ahoy").containsEntry("size", 1L);
        assertThat(told().get(1).data()).containsEntry("word", "again");
        assertThat(told().get(0).key()).isEqualTo("J");
        assertThat(told().get(0).unit()).isEqualTo(told().get(1).unit());
        assertThat(told().get(0).id()).isNotEqualTo(told().get(1).id());
    }

    @Test
    void whatIsRefusedTellsNothing() {
        heard(Set.of("Job.begin", "Job.changed", "Job.finish"));
        yard.transit("Job", "J", "finish");
        yard.change("Job", "J", "size", "many");

        assertThat(told()).isEmpty();
    }
}
