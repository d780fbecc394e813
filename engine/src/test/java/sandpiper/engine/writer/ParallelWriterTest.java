package sandpiper.engine.writer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;

/** What is answered when, where many write at a time. */
@Timeout(30)
class ParallelWriterTest {
    private final Storage storage = mock(Storage.class);
    private final Transaction transaction = mock(Transaction.class);
    private final List<String> seen = new CopyOnWriteArrayList<>();
    private Writer writer;

    @BeforeEach
    void start() {
        when(storage.writers()).thenReturn(2);
        when(storage.begin(anyBoolean())).thenReturn(transaction);
        doAnswer(
                        _ -> {
                            // What is locked is free only after a while.
                            TimeUnit.MILLISECONDS.sleep(100);
                            return seen.add("ended");
                        })
                .when(transaction)
                .close();
        writer = Writer.of(storage, 5, mock(WriteMetrics.class));
    }

    @AfterEach
    void stop() {
        writer.close();
    }

    @Test
    void whoIsRefusedIsToldWhenNothingIsLockedAnyMore() {
        assertThatThrownBy(() ->
                        writer.write(_ -> {
                            throw new IllegalArgumentException("no");
                        }))
                .hasMessage("no");

        assertThat(seen).containsExactly("ended");
        verify(transaction, never()).commit();
    }

    @Test
    void whoseChangeIsKeptIsToldAfterTheCommit() {
        int answered = writer.write(_ -> 7);

        assertThat(answered).isEqualTo(7);
        verify(transaction).commit();
    }
}
