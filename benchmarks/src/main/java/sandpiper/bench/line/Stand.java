package sandpiper.bench.line;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executors;
import sandpiper.bench.Calls;
import sandpiper.bench.load.Load;
import sandpiper.bench.load.Measured;
import sandpiper.bench.subject.Subject;

/**
 * Both services, running, and how long to measure.
 *
 * @param folder for files of their own
 * @param time of one round
 */
public record Stand(
        Subject sandpiper, Subject control, Path folder, Duration time, int rounds, Report report)
        implements AutoCloseable {
    /**
     * What Sandpiper's callers notice of some work: half of the connections' requests create a stay
     * and half read one, until it is done. Failures are counted.
     */
    Measured during(int connections, Callable<?> work) throws IOException, InterruptedException {
        var rest = Calls.of(sandpiper.address()).getFirst();
        try (var pool = Executors.newSingleThreadExecutor()) {
            var working = pool.submit(work);
            var load =
                    Load.on(sandpiper.address(), connections)
                            .countingFailures()
                            .until(
                                    working::isDone,
                                    n -> n % 2 == 0 ? rest.create(n) : rest.read(n));
            working.get();
            return load;
        } catch (ExecutionException e) {
            throw new IOException(e.getCause());
        }
    }

    @Override
    public void close() throws IOException {
        sandpiper.close();
        control.close();
    }
}
