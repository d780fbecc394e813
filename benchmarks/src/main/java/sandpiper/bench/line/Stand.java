package sandpiper.bench.line;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
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
    @Override
    public void close() throws IOException {
        sandpiper.close();
        control.close();
    }
}
