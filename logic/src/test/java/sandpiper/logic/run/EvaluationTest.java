package sandpiper.logic.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;

/** What one run may spend, and what it notes. */
class EvaluationTest {
    private static Evaluation run(int budget) {
        return new Evaluation(Instant.EPOCH, ZoneOffset.UTC, RecordSource.NONE, budget);
    }

    @Test
    void spendsWhatItMayAndNotMore() {
        var run = run(10);
        run.spend(4);
        run.spend(6);
        assertThatThrownBy(() -> run.spend(1))
                .isInstanceOf(BudgetException.class)
                .hasMessage("This takes more than 10 steps and was stopped.");
        assertThatCode(() ->
                        new Evaluation(Instant.EPOCH, ZoneOffset.UTC, RecordSource.NONE)
                                .spend(Evaluation.USUAL_BUDGET))
                .doesNotThrowAnyException();
    }

    @Test
    void eightCharactersAreAStep() {
        var run = run(10);
        run.spendText(80);
        assertThatThrownBy(() -> run.spendText(8)).isInstanceOf(BudgetException.class);
        var other = run(1_000_000);
        other.spendText(Evaluation.LONGEST_TEXT);
        assertThatThrownBy(() -> other.spendText(Evaluation.LONGEST_TEXT + 1))
                .hasMessageContaining("1,000,000 characters");
    }

    @Test
    void itemsAndDepthHaveAnEnd() {
        var run = run(10);
        run.checkItems(Evaluation.MOST_ITEMS);
        assertThatThrownBy(() -> run.checkItems(Evaluation.MOST_ITEMS + 1))
                .hasMessageContaining("1,000,000 items");
        for (int i = 0; i < 100; i++) {
            run.enter();
        }
        run.leave();
        run.enter();
        assertThatThrownBy(run::enter).hasMessageContaining("100 deep");
    }

    /** The clock is looked at now and then, and not before it was started. */
    @Test
    void timeIsBoundedOnceItWasStarted() {
        var run = run(1_000_000);
        run.lookAtClock();
        run.startClock(Duration.ZERO);
        run.startClock(Duration.ofHours(1));
        run.spend(1);
        assertThatThrownBy(run::lookAtClock)
                .hasMessage("This takes longer than 0 milliseconds and was stopped.");
        assertThatCode(() -> run.spend(9_999)).doesNotThrowAnyException();
        assertThatThrownBy(() -> run.spend(1)).hasMessageContaining("longer than 0 milliseconds");
        var usual = run(1_000_000);
        usual.startClock();
        assertThatCode(() -> usual.spend(100_000)).doesNotThrowAnyException();
    }

    /** A thread that had to wait is let go on; one that waits on and on is not. */
    @Test
    void whatWaitsForTheMachineHasItsTimeStill() throws InterruptedException {
        var waiting = run(1_000_000);
        waiting.startClock(Duration.ofSeconds(2));
        Thread.sleep(2_050);
        assertThatCode(waiting::lookAtClock).doesNotThrowAnyException();

        var forLong = run(1_000_000);
        forLong.startClock(Duration.ofMillis(20));
        Thread.sleep(70);
        assertThatThrownBy(forLong::lookAtClock).hasMessageContaining("longer than 20 millisec");
    }

    @Test
    void notesAreKeptOnceAndTwentyAtMost() {
        var run = run(10);
        run.note("a");
        run.note("a");
        assertThat(run.notes()).containsExactly("a");
        for (int i = 0; i < 30; i++) {
            run.note("n" + i);
        }
        assertThat(run.notes()).hasSize(20).endsWith("n18");
    }

    @Test
    void ratesComeFromNowhereUntilSaid() {
        var run = run(10);
        var day = LocalDate.of(2026, 5, 1);
        assertThat(run.rate("EUR", "USD", day)).isEqualTo(Nothing.NULL);
        assertThat(run.notes()).containsExactly("There is no rate of EUR in USD.");
        run.rates((from, to, on) -> Decimal.of(on.getYear()));
        assertThat(run.rate("EUR", "USD", day)).isEqualTo(Decimal.of(2026));
    }
}
