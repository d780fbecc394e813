package sandpiper.engine.rehearsal;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.definition.Drafts;
import sandpiper.engine.definition.ReleasePreview;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.example.ExampleResult;
import sandpiper.engine.example.Examples;
import sandpiper.engine.port.Storage;
import sandpiper.engine.rehearsal.RehearsalReport.Stage;
import sandpiper.engine.writer.WriteMetrics;
import sandpiper.engine.writer.Writer;

/**
 * Releases the draft on a copy of the live data while the service goes on. Nothing is sent from
 * there: no event is handed on, no schedule runs. One at a time; the copy is gone at the end, or at
 * the next start when the service was killed. Safe for use by many threads.
 */
public final class Rehearsals implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Rehearsals.class);
    private static final Duration LONGEST = Duration.ofMinutes(60);
    private static final Duration STEP = Duration.ofMillis(20);

    /** What the release, its log and its new tables need besides the copy. */
    private static final int TIMES_THE_DATA = 3;

    /** A release and what is worked out after it; never many. */
    private static final int LONGEST_QUEUE = 100;

    private final Engine engine;
    private final Examples examples;
    private final Function<Path, Storage> opener;
    private final Path data;
    private final Path copy;
    private final Clock clock;
    private volatile @Nullable RehearsalReport last;
    private @Nullable Thread thread;

    /**
     * Takes away what a service that was killed has left.
     *
     * @param opener opens a copy, which is closed with what it gives
     * @param data the file of the live data; the copy lies beside it
     */
    public Rehearsals(Engine engine, Examples examples, Function<Path, Storage> opener, Path data) {
        this.engine = engine;
        this.examples = examples;
        this.opener = opener;
        this.data = data;
        this.copy = data.resolveSibling(data.getFileName() + ".rehearsal");
        this.clock = engine.clock();
        removeCopy();
    }

    /** The one that is under way, or the last one since the start. */
    public Optional<RehearsalReport> last() {
        return Optional.ofNullable(last);
    }

    /**
     * Begins one with the draft as it is.
     *
     * @throws RehearsalException when one is under way, the draft cannot be released, or there is
     *     no room for the copy
     */
    public synchronized RehearsalReport begin(Actor actor) {
        var known = last;
        if (known != null && !known.stage().isOver()) {
            throw new RehearsalException(
                    "A rehearsal of %s is under way; wait for it, or end it."
                            .formatted(known.by()));
        }
        var preview = engine.releases().preview();
        if (preview.hasErrors()) {
            throw new RehearsalException("The draft has errors; mend them first.");
        }
        if (preview.files().isEmpty()) {
            throw new RehearsalException("The draft is the same as the live release.");
        }
        requireRoom();
        var begun = RehearsalReport.begun(clock.instant(), actor.name(), engine.live().number());
        last = begun;
        thread = Thread.ofPlatform().daemon().name("sandpiper-rehearsal").start(() -> run(actor));
        return begun;
    }

    private void requireRoom() {
        try {
            long needed = TIMES_THE_DATA * Files.size(data);
            long free = Files.getFileStore(data).getUsableSpace();
            if (free < needed) {
                throw new RehearsalException(
                        "A rehearsal needs %,d MB beside the data, and %,d MB are free."
                                .formatted(needed >> 20, free >> 20));
            }
        } catch (IOException e) {
            throw new RehearsalException(
                    "Whether there is room for a copy cannot be told: %s"
                            .formatted(e.getMessage()));
        }
    }

    /** Ends the one that is under way; tells whether there was one. */
    public boolean end() {
        Thread running;
        synchronized (this) {
            running = thread;
        }
        if (running == null || !running.isAlive()) {
            return false;
        }
        running.interrupt();
        try {
            running.join(Duration.ofSeconds(30));
        } catch (InterruptedException _) {
            Thread.currentThread().interrupt();
        }
        return true;
    }

    @Override
    public void close() {
        end();
    }

    private RehearsalReport now() {
        return Objects.requireNonNull(last);
    }

    private void run(Actor actor) {
        var end = rehearsed(actor);
        // Who hears that it is over finds nothing left of it.
        removeCopy();
        last = end;
    }

    private RehearsalReport rehearsed(Actor actor) {
        try {
            var start = Instant.now();
            engine.backUp(copy);
            requireNotEnded();
            last = now().copied(Files.size(copy), since(start));
            try (var storage = opener.apply(copy);
                    var writer = new Writer(storage, LONGEST_QUEUE, WriteMetrics.NONE)) {
                var drafts = new Drafts(storage, writer, clock);
                try (var releases = new Releases(storage, drafts, writer, clock)) {
                    return rehearse(storage, writer, drafts.files(), releases, actor);
                }
            }
        } catch (InterruptedException _) {
            return stopped("It was ended.");
        } catch (IOException | RuntimeException e) {
            LOG.warn("A rehearsal could not go on", e);
            return stopped(String.valueOf(e.getMessage()));
        }
    }

    private RehearsalReport stopped(String why) {
        return now().over(Stage.STOPPED, null, why);
    }

    private RehearsalReport rehearse(
            Storage storage,
            Writer writer,
            Map<String, String> files,
            Releases releases,
            Actor actor)
            throws InterruptedException {
        var preview = releases.preview();
        var now = examples.runOn(storage, writer, releases.live());
        requireNotEnded();
        var start = Instant.now();
        var result = releases.release("rehearsal", new Releases.Accepted(true, true), actor);
        if (result instanceof ReleasePreview.Result.Refused(var told, var why)) {
            return now().over(Stage.REFUSED, told, why);
        }
        var released = since(start);
        var open = releases.recomputing().stream().map(one -> one.formula()).toList();
        last = now().released(preview, released, open);
        var working = Instant.now();
        while (!releases.recomputing().isEmpty()) {
            if (since(working).compareTo(LONGEST) > 0) {
                return stopped("Formulas were not worked out within an hour.");
            }
            Thread.sleep(STEP);
        }
        last = now().workedOut(since(working));
        var alone = examples.run(files);
        requireNotEnded();
        var onRecords = examples.runOn(storage, writer, releases.live());
        var failing = alone.stream().filter(one -> !one.holds()).toList();
        return now().played(failing, besides(failing, now, onRecords));
    }

    /**
     * Those that fail on the records there are, and neither by themselves nor by what is live: many
     * examples are not written for records that nobody thought of, and that is not the release's
     * doing.
     */
    private static List<ExampleResult> besides(
            List<ExampleResult> failing, List<ExampleResult> live, List<ExampleResult> onRecords) {
        var known = new HashSet<String>();
        Stream.of(failing, live)
                .flatMap(List::stream)
                .filter(one -> !one.holds())
                .forEach(one -> known.add(place(one)));
        return onRecords.stream()
                .filter(one -> !one.holds() && !known.contains(place(one)))
                .toList();
    }

    private static String place(ExampleResult one) {
        return one.requirement() + "/" + one.name();
    }

    private static void requireNotEnded() throws InterruptedException {
        if (Thread.interrupted()) {
            throw new InterruptedException();
        }
    }

    private static Duration since(Instant start) {
        return Duration.between(start, Instant.now());
    }

    private void removeCopy() {
        for (var end : new String[] {"", "-wal", "-shm", ".lock", "-journal"}) {
            try {
                Files.deleteIfExists(Path.of(copy + end));
            } catch (IOException e) {
                LOG.warn("{}{} of a rehearsal could not be removed", copy, end, e);
            }
        }
    }
}
