package sandpiper.engine.writer;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class QueuedTest {
    @Test
    void whatIsGivenUpInTimeIsNotDone() {
        var waits = new Queued<String>();
        assertThat(waits.giveUp()).isTrue();
        assertThat(waits.begin()).isFalse();

        var runs = new Queued<String>();
        assertThat(runs.begin()).isTrue();
        assertThat(runs.giveUp()).isFalse();
    }

    @Test
    void errorsOfTheMachineAreFinalWhereverTheyStand() {
        assertThat(LastWord.isFinal(new IllegalStateException(new OutOfMemoryError()))).isTrue();
        assertThat(LastWord.isFinal(new IllegalStateException(new StackOverflowError()))).isFalse();
        assertThat(LastWord.isFinal(new IllegalStateException())).isFalse();
    }
}
