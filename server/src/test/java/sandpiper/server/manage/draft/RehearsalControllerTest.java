package sandpiper.server.manage.draft;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.example.ExampleResult;
import sandpiper.engine.rehearsal.RehearsalReport;
import sandpiper.engine.rehearsal.RehearsalReport.ServedAt;
import sandpiper.engine.rehearsal.RehearsalReport.Stage;
import sandpiper.engine.rehearsal.RehearsalReport.Took;
import sandpiper.engine.rehearsal.Rehearsals;
import sandpiper.engine.rehearsal.ReplayReport;
import sandpiper.server.problem.ProblemException;

class RehearsalControllerTest {
    private final Rehearsals rehearsals = mock();
    private final RehearsalController controller = new RehearsalController(rehearsals);

    private static Actor person(Duty... duties) {
        return new Actor(Actor.Kind.USER, "ann", Set.of(duties), List.of());
    }

    private static RehearsalReport done() {
        var differing = new ExampleResult("R1", "paid", "Paid", List.of("pay is 4711."), List.of());
        return new RehearsalReport(
                Stage.DONE,
                Instant.EPOCH,
                "ann",
                3,
                1_000,
                new Took(Duration.ofMillis(20), Duration.ofMillis(1_500), Duration.ZERO),
                List.of(),
                null,
                List.of(),
                List.of(differing),
                new ReplayReport(
                        Instant.EPOCH,
                        12,
                        1,
                        List.of(
                                new ReplayReport.Difference(
                                        "desk v1 stays create",
                                        2,
                                        9,
                                        "201",
                                        "422 pay is 4711",
                                        "POST /api/desk/v1/stays, site"))),
                new ServedAt("/rehearsal", Instant.EPOCH),
                null);
    }

    @Test
    void whatRecordsSayIsForThoseWhoMaySeeThem() {
        when(rehearsals.last()).thenReturn(Optional.of(done()));

        assertThat(controller.last(person(Duty.DESIGN)).last().differing().getFirst().problems())
                .containsExactly("Who has the duty records sees what is other there.");
        assertThat(
                        controller
                                .last(person(Duty.DESIGN, Duty.RECORDS))
                                .last()
                                .differing()
                                .getFirst()
                                .problems())
                .containsExactly("pay is 4711.");
        assertThat(controller.last(person(Duty.DESIGN)).last().replay().toString())
                .contains("desk v1 stays create", "count=2, of=9")
                .doesNotContain("4711");
        assertThat(
                        controller
                                .last(person(Duty.DESIGN, Duty.RECORDS))
                                .last()
                                .replay()
                                .differences()
                                .getFirst()
                                .then())
                .isEqualTo("422 pay is 4711");
    }

    @Test
    void itIsBegunAndEndedByThoseWhoMayRelease() {
        assertThatThrownBy(() -> controller.begin(person(Duty.DESIGN)))
                .isInstanceOf(ProblemException.class);
        assertThatThrownBy(() -> controller.end(person(Duty.DESIGN)))
                .isInstanceOf(ProblemException.class);
        assertThatThrownBy(() -> controller.last(person(Duty.RECORDS)))
                .isInstanceOf(ProblemException.class);
        verify(rehearsals, never()).end();

        var releasing = person(Duty.RELEASE);
        when(rehearsals.begin(releasing)).thenReturn(done());
        assertThat(controller.begin(releasing).releaseMillis()).isEqualTo(1_500);
    }

    @Test
    void whatIsNotThereIsTold() {
        when(rehearsals.last()).thenReturn(Optional.empty());
        assertThat(controller.last(person(Duty.DESIGN)).last()).isNull();
        when(rehearsals.end()).thenReturn(false);
        assertThatThrownBy(() -> controller.end(person(Duty.RELEASE)))
                .hasMessageContaining("No rehearsal is under way");
    }
}
