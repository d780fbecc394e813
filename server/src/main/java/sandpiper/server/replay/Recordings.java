package sandpiper.server.replay;

import java.io.BufferedReader;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.server.json.JsonReader;

/**
 * Keeps calls in two files beside the data, the newer of which becomes the older when it holds half
 * of what is allowed. Calls never wait for it: of more than can be written some are left out. Safe
 * for use by many threads.
 */
final class Recordings implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Recordings.class);
    private static final int WAITING = 1_000;
    private static final Duration PAUSE = Duration.ofSeconds(1);

    private static final FileAttribute<?>[] OWNERS_ONLY =
            FileSystems.getDefault().supportedFileAttributeViews().contains("posix")
                    ? new FileAttribute<?>[] {
                        PosixFilePermissions.asFileAttribute(
                                PosixFilePermissions.fromString("rw-------"))
                    }
                    : new FileAttribute<?>[0];

    private final Path newer;
    private final Path older;
    private final long most;
    private final Duration kept;
    private final Clock clock;
    private final BlockingQueue<RecordedCall> queue = new ArrayBlockingQueue<>(WAITING);
    private final AtomicLong written = new AtomicLong();
    private final AtomicLong taken = new AtomicLong();
    private final @Nullable Thread thread;
    private volatile boolean closed;

    /**
     * Begins to keep calls; when nothing may be kept, what was kept before is taken away.
     *
     * @param data beside which the files lie
     * @param most bytes of both of them together; 0 to keep nothing
     * @param kept how long a call is kept
     */
    Recordings(Path data, long most, Duration kept, Clock clock) {
        this.newer = data.resolveSibling(data.getFileName() + ".calls");
        this.older = data.resolveSibling(data.getFileName() + ".calls.older");
        this.most = most;
        this.kept = kept;
        this.clock = clock;
        if (most > 0) {
            thread = Thread.ofPlatform().daemon().name("sandpiper-recording").start(this::run);
        } else {
            thread = null;
            List.of(newer, older).forEach(Recordings::remove);
        }
    }

    /** Keeps a call, unless too many wait to be written. */
    void add(RecordedCall call) {
        if (thread != null && queue.offer(call)) {
            taken.incrementAndGet();
        }
    }

    /**
     * What is kept, oldest first, with what waited to be written; read as it is asked for, since it
     * may be more than fits into memory. To be closed.
     */
    Stream<RecordedCall> all() {
        settle();
        var since = clock.instant().minus(kept);
        Stream<RecordedCall> calls;
        synchronized (this) {
            // Once open, a file is read to its end, whatever it is called meanwhile.
            calls = Stream.concat(read(older), read(newer));
        }
        return calls.filter(call -> !call.at().isBefore(since));
    }

    /** Whether there may be some. */
    synchronized boolean isEmpty() {
        return queue.isEmpty() && !Files.exists(newer) && !Files.exists(older);
    }

    /** Waits for what was added before, and no longer than a disk should take. */
    private void settle() {
        long until = taken.get();
        long end = System.nanoTime() + Duration.ofSeconds(10).toNanos();
        while (written.get() < until && !closed && System.nanoTime() < end) {
            try {
                Thread.sleep(5);
            } catch (InterruptedException _) {
                Thread.currentThread().interrupt();
                return;
            }
        }
    }

    private static Stream<RecordedCall> read(Path file) {
        if (!Files.exists(file)) {
            return Stream.empty();
        }
        try {
            // Half a character, as a power cut leaves it, is a line that is not whole, and no more.
            var lines =
                    new BufferedReader(
                            new InputStreamReader(
                                    Files.newInputStream(file), StandardCharsets.UTF_8));
            return lines.lines()
                    .onClose(() -> close(lines))
                    .map(Recordings::parsed)
                    .filter(Objects::nonNull);
        } catch (IOException e) {
            LOG.warn("{} cannot be read", file, e);
            return Stream.empty();
        }
    }

    private static void close(BufferedReader lines) {
        try {
            lines.close();
        } catch (IOException e) {
            LOG.debug("A file of calls could not be closed", e);
        }
    }

    /** The last line of a service that was killed may not be whole. */
    private static @Nullable RecordedCall parsed(String line) {
        try {
            return RecordedCall.of(JsonReader.OWN.object(line.getBytes(StandardCharsets.UTF_8)));
        } catch (RuntimeException _) {
            return null;
        }
    }

    private void run() {
        while (!closed || !queue.isEmpty()) {
            try {
                var first = queue.poll(PAUSE.toMillis(), TimeUnit.MILLISECONDS);
                if (first != null) {
                    var calls = new ArrayList<RecordedCall>();
                    calls.add(first);
                    queue.drainTo(calls);
                    write(calls);
                    written.addAndGet(calls.size());
                }
            } catch (InterruptedException _) {
                closed = true;
            }
        }
    }

    private synchronized void write(List<RecordedCall> calls) {
        try {
            if (Files.exists(newer) && Files.size(newer) > most / 2) {
                Files.move(newer, older, StandardCopyOption.REPLACE_EXISTING);
            }
            try (var out = appending()) {
                for (var call : calls) {
                    out.write(call.line());
                    out.newLine();
                }
            }
        } catch (IOException e) {
            LOG.warn("Calls cannot be kept in {}", newer, e);
        }
    }

    private BufferedWriter appending() throws IOException {
        if (!Files.exists(newer)) {
            // They hold what records hold.
            Files.createFile(newer, OWNERS_ONLY);
        }
        return Files.newBufferedWriter(newer, StandardCharsets.UTF_8, StandardOpenOption.APPEND);
    }

    /** Takes away files whose calls are all older than they may be. */
    synchronized void forgetOld() {
        var since = clock.instant().minus(kept);
        for (var file : List.of(older, newer)) {
            try {
                if (Files.exists(file)
                        && Files.getLastModifiedTime(file).toInstant().isBefore(since)) {
                    remove(file);
                }
            } catch (IOException e) {
                LOG.warn("How old {} is cannot be told", file, e);
            }
        }
    }

    private static void remove(Path file) {
        try {
            Files.deleteIfExists(file);
        } catch (IOException e) {
            LOG.warn("{} cannot be removed", file, e);
        }
    }

    @Override
    public void close() {
        closed = true;
        if (thread == null) {
            return;
        }
        try {
            thread.join(Duration.ofSeconds(5));
        } catch (InterruptedException _) {
            Thread.currentThread().interrupt();
        }
    }
}
