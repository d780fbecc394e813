package sandpiper.store.sqlite;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.port.StorageException;

/**
 * Notices that the data file is no longer the one that was opened: deleted, replaced or cut. The
 * system goes on writing to what has no name any more, and all of it would be gone at the end.
 */
public final class FileWatch implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(FileWatch.class);
    private static final Duration EVERY = Duration.ofMillis(400);

    private final Path file;
    private final @Nullable String number;
    private final Thread thread;
    private long largest;
    private volatile @Nullable String trouble;
    private volatile boolean closed;

    /** Begins to watch a file that is open. */
    public FileWatch(Path file) {
        this.file = file;
        this.number = number(file);
        this.thread = Thread.ofPlatform().daemon().name("sandpiper-file").start(this::run);
    }

    private static @Nullable String number(Path file) {
        try {
            return FileHold.number(file);
        } catch (IOException _) {
            return null;
        }
    }

    /**
     * Lets work on the file go on.
     *
     * @throws StorageException when it is not the one any more
     */
    public void requireSound() {
        var said = trouble;
        if (said != null) {
            throw new StorageException(said, new IllegalStateException(said));
        }
    }

    /** Takes note of damage that was found; nothing is stored from here on. */
    public void damaged(String what) {
        report(
                "The data file is damaged (%s): stop the service and restore a backup."
                        .formatted(what));
    }

    private void report(String said) {
        if (trouble == null) {
            trouble = said;
            LOG.error("{}", said);
        }
    }

    private void run() {
        while (!closed && trouble == null) {
            look();
            try {
                Thread.sleep(EVERY);
            } catch (InterruptedException _) {
                return;
            }
        }
    }

    private void look() {
        try {
            long size = Files.size(file);
            var now = FileHold.number(file);
            if (closed) {
                return;
            }
            if (number != null && !number.equals(now)) {
                report(
                        "The data file %s was replaced by another while the service runs: nothing is stored any more. Stop the service and bring the right file back."
                                .formatted(file));
            } else if (size < largest) {
                report(
                        "The data file %s was cut from %,d to %,d bytes while the service runs: nothing is stored any more. Stop the service and restore a backup."
                                .formatted(file, largest, size));
            }
            largest = Math.max(largest, size);
        } catch (NoSuchFileException _) {
            if (!closed) {
                report(
                        "The data file %s was deleted while the service runs: nothing is stored any more. Stop the service and restore a backup."
                                .formatted(file));
            }
        } catch (IOException e) {
            LOG.warn("The data file {} cannot be looked at", file, e);
        }
    }

    @Override
    public void close() {
        closed = true;
        thread.interrupt();
    }
}
