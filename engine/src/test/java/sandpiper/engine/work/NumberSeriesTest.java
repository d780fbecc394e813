package sandpiper.engine.work;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.doReturn;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;

import java.util.Optional;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.port.RecordStorage.Found;

class NumberSeriesTest {
    private final Yard yard =
            new Yard(
                    """
                    object: Job
                    key: code
                    numbering: { field: code, pattern: "J-{year}-{sequence:4}" }
                    fields:
                      code: { type: text }
                      note: { type: text }
                    """);
    private final NumberSeries series =
            new NumberSeries(yard.records, yard.transaction, Yard.CLOCK.instant());

    private RecordState job() {
        return new RecordState(yard.object("Job"), WorkIds.next());
    }

    private Object code(RecordState job) {
        return job.slots().get(yard.object("Job").fields().get("code"));
    }

    @Test
    void eachNewRecordGetsTheNext() {
        var first = job();
        var second = job();

        series.number(first);
        series.number(second);

        assertThat(code(first)).isEqualTo("J-2026-0001");
        assertThat(code(second)).isEqualTo("J-2026-0002");
        assertThat(series.isKeyFree(first)).isTrue();
    }

    @Test
    void aNumberThatCameAlongStays() {
        var job = job();
        job.slots().set(yard.object("Job").fields().get("code"), "OLD-7");

        series.number(job);

        assertThat(code(job)).isEqualTo("OLD-7");
        assertThat(series.isKeyFree(job)).isFalse();
        verify(yard.records, never()).nextInSeries(any(), any(), any());
    }

    @Test
    void numbersThatAreInUseAreLeftOut() {
        yard.create("Job", "code", "J-2026-0001");
        yard.create("Job", "code", "J-2026-0002");
        var job = job();

        series.number(job);

        assertThat(code(job)).isEqualTo("J-2026-0003");
    }

    @Test
    void whatARulePutThereInstedIsLookedAtLikeAnyKey() {
        var job = job();
        series.number(job);
        job.slots().set(yard.object("Job").fields().get("code"), "J-1999-0001");

        assertThat(series.isKeyFree(job)).isFalse();
    }

    @Test
    void itGivesUpWhenThereIsNoEnd() {
        doReturn(Optional.of(new Found(1, false)))
                .when(yard.records)
                .another(any(), any(), any(), any(), anyLong());

        assertThatThrownBy(() -> series.number(job()))
                .isInstanceOf(IllegalStateException.class)
                .hasMessageContaining("No free number");
    }
}
