package sandpiper.server.soap.xml;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.xml.sax.SAXException;

class PoolTest {
    private final AtomicInteger made = new AtomicInteger();
    private final Pool<Integer> pool = new Pool<>(made::incrementAndGet);

    private int used() throws Exception {
        return pool.with(one -> one);
    }

    @Test
    void whatIsIdleIsUsedAgain() throws Exception {
        assertThat(used()).isEqualTo(1);
        assertThat(used()).isEqualTo(1);
    }

    @Test
    void whatIsUsedIsNotUsedBySomebodyElse() throws Exception {
        assertThat(pool.<Integer>with(outer -> pool.with(inner -> 10 * outer + inner)))
                .isEqualTo(12);
        assertThat(made).hasValue(2);
    }

    @Test
    void whatFailedIsNotUsedAgain() throws Exception {
        assertThatThrownBy(() ->
                        pool.with(_ -> {
                            throw new SAXException("broken");
                        }))
                .hasMessage("broken");
        assertThatThrownBy(() ->
                        pool.with(_ -> {
                            throw new IOException("cut");
                        }))
                .hasMessage("cut");
        assertThat(used()).isEqualTo(3);
    }

    @Test
    @Timeout(30)
    void thereAreNoMoreThanWereUsedAtOnce() throws Exception {
        var together = new CyclicBarrier(4);
        try (var threads = Executors.newFixedThreadPool(4)) {
            for (int round = 0; round < 20; round++) {
                for (int i = 0; i < 4; i++) {
                    threads.submit(() ->
                            pool.with(one -> {
                                try {
                                    together.await(10, TimeUnit.SECONDS);
                                } catch (Exception e) {
                                    throw new SAXException(e);
                                }
                                return one;
                            }));
                }
            }
        }
        assertThat(made).hasValueLessThanOrEqualTo(4);
    }
}
