package sandpiper.engine.writer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.Transaction;

/** What becomes of jobs and their neighbours; the storage only takes down what it is asked. */
@Timeout(30)
class WriterTest {
    private final Storage storage = mock(Storage.class);
    private final Transaction transaction = mock(Transaction.class);
    private final WriteMetrics metrics = mock(WriteMetrics.class);
    private Writer writer;

    @BeforeEach
    void start() {
        when(storage.begin(anyBoolean())).thenReturn(transaction);
        writer = Writer.of(storage, 5, metrics);
    }

    @AfterEach
    void stop() {
        writer.close();
    }

    private int wrote(int answer) {
        return writer.write(_ -> answer);
    }

    /** Keeps the writer's thread busy until it is let go, so that jobs come to wait together. */
    private CountDownLatch busy() throws InterruptedException {
        var begun = new CountDownLatch(1);
        var go = new CountDownLatch(1);
        var unused =
                writer.submit(_ -> {
                    begun.countDown();
                    try {
                        return go.await(20, TimeUnit.SECONDS);
                    } catch (InterruptedException e) {
                        throw new IllegalStateException(e);
                    }
                });
        assertThat(unused).isNotNull();
        assertThat(begun.await(10, TimeUnit.SECONDS)).isTrue();
        return go;
    }

    @Test
    void whatIsAnsweredIsCommitted() {
        assertThat(wrote(7)).isEqualTo(7);

        verify(transaction).mark();
        verify(transaction).keepSinceMark();
        verify(transaction).commit();
    }

    @Test
    void jobsThatWaitTogetherShareACommit() throws InterruptedException {
        var go = busy();
        var jobs = List.of(writer.submit(_ -> 1), writer.submit(_ -> 2), writer.submit(_ -> 3));
        // The one that keeps it busy is of the same group.
        go.countDown();

        assertThat(jobs.stream().map(Writer::await).toList()).containsExactly(1, 2, 3);
        verify(transaction, times(1)).commit();
    }

    @Test
    void aJobThatFailsIsUndoneAndItsNeighboursAreKept() throws InterruptedException {
        var go = busy();
        var wrong =
                writer.submit(_ -> {
                    throw new IllegalArgumentException("no");
                });
        var right = writer.submit(_ -> "yes");
        go.countDown();

        assertThat(Writer.await(right)).isEqualTo("yes");
        assertThatThrownBy(() -> Writer.await(wrong))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("no");
        verify(transaction).undoToMark();
        verify(transaction, times(2)).keepSinceMark();
    }

    @Test
    void whatAJobHasDoneBehindMarksOfItsOwnIsUndoneWithItWhenItFails() {
        var marks = new AtomicInteger();
        doAnswer(_ -> marks.incrementAndGet()).when(transaction).mark();
        doAnswer(_ -> marks.decrementAndGet()).when(transaction).undoToMark();
        when(transaction.marks()).thenAnswer(_ -> marks.get());

        assertThatThrownBy(() ->
                        writer.write(now -> {
                            now.mark();
                            now.mark();
                            throw new IllegalArgumentException("no");
                        }))
                .hasMessage("no");

        verify(transaction, times(3)).undoToMark();
        assertThat(marks).hasValue(0);
    }

    @Test
    void whatAJobDoesNotWantToKeepIsUndone() {
        var kept =
                writer.write(
                        new WriteJob<Boolean>() {
                            @Override
                            public Boolean run(Transaction now) {
                                return false;
                            }

                            @Override
                            public boolean keeps(Boolean result) {
                                return result;
                            }
                        });

        assertThat(kept).isFalse();
        verify(transaction).undoToMark();
        verify(transaction, never()).keepSinceMark();
    }

    @Test
    void aCommitThatFailsFailsAllAndTheNextGroupGoesOn() {
        doThrow(new StorageException("full", new IllegalStateException()))
                .doNothing()
                .when(transaction)
                .commit();

        assertThatThrownBy(() -> writer.write(_ -> 1)).isInstanceOf(StorageException.class);
        assertThat(wrote(2)).isEqualTo(2);
    }

    @Test
    void aStackThatOverflowsFailsItsJobAlone() {
        assertThatThrownBy(() -> writer.write(_ -> deeper(1)))
                .isInstanceOf(IllegalStateException.class)
                .hasCauseInstanceOf(StackOverflowError.class);

        assertThat(wrote(2)).isEqualTo(2);
    }

    private static int deeper(int n) {
        return deeper(n + 1) + 1;
    }

    @Test
    void aJobThatChangesTablesHasATransactionToItselfAndIsToldBeforeTheNext() {
        var told = new ArrayList<String>();

        var alone = writer.submitAlone(_ -> "tables", told::add);
        var next = writer.submit(_ -> told.add("next"));

        assertThat(Writer.await(alone)).isEqualTo("tables");
        assertThat(Writer.await(next)).isTrue();
        assertThat(told).containsExactly("tables", "next");
        verify(storage).begin(true);
        verify(storage).begin(false);
    }

    @Test
    void whoComesWhenTooManyWaitIsToldSoAtOnce() throws InterruptedException {
        var go = busy();
        var waiting = new ArrayList<CompletableFuture<Integer>>();
        for (int i = 0; i < 5; i++) {
            waiting.add(writer.submit(_ -> 1));
        }

        assertThatThrownBy(() -> writer.submit(_ -> 1))
                .isInstanceOf(OverloadedException.class)
                .hasMessageContaining("5 changes are waiting");

        go.countDown();
        waiting.forEach(Writer::await);
        assertThat(writer.waiting()).isZero();
    }

    @Test
    void oneJobAloneIsTakenWhateverItsSize() {
        int answered = Writer.await(writer.submit(_ -> 1, 1_000));

        assertThat(answered).isEqualTo(1);
    }

    @Test
    void whoGivesUpBeforeItsTurnHasNothingDone() throws InterruptedException {
        var go = busy();
        var done = new ArrayList<String>();
        var job = writer.submit(_ -> done.add("x"));

        assertThatThrownBy(() -> Writer.await(job, Duration.ofSeconds(1)))
                .isInstanceOf(OverloadedException.class)
                .hasMessageContaining("nothing of this was done");
        go.countDown();
        writer.write(_ -> true);

        assertThat(done).isEmpty();
    }

    @Test
    void whoseTurnHasComeIsToldThatItMayStillBeDone() throws InterruptedException {
        var begun = new CountDownLatch(1);
        var go = new CountDownLatch(1);
        var job =
                writer.submit(_ -> {
                    begun.countDown();
                    try {
                        return go.await(20, TimeUnit.SECONDS);
                    } catch (InterruptedException e) {
                        throw new IllegalStateException(e);
                    }
                });
        assertThat(begun.await(10, TimeUnit.SECONDS)).isTrue();

        assertThatThrownBy(() -> Writer.await(job, Duration.ofSeconds(1)))
                .isInstanceOf(UnfinishedException.class)
                .hasMessageContaining("may still be done");
        go.countDown();
    }

    @Test
    void closingFinishesWhatWaitsAndTakesNoMore() {
        var job = writer.submit(_ -> 3);

        writer.close();

        int answered = Writer.await(job);
        assertThat(answered).isEqualTo(3);
        assertThatThrownBy(() -> writer.submit(_ -> 1))
                .isInstanceOf(IllegalStateException.class)
                .hasMessageContaining("is stopping");
    }

    @Test
    void aNoteNobodyWaitsForFailsNobody() {
        var transactions = new Transactions(storage, writer);

        transactions.later(_ -> {
            throw new IllegalStateException("no");
        });

        int answered = transactions.write(_ -> 4);
        assertThat(answered).isEqualTo(4);
        writer.close();
        transactions.later(_ -> {});
    }
}
