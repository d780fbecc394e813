package sandpiper.engine.rehearsal;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.slf4j.MDC;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.definition.Drafts;
import sandpiper.engine.definition.ReleasePreview;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.definition.SeedLoader;
import sandpiper.engine.example.ExampleResult;
import sandpiper.engine.example.Examples;
import sandpiper.engine.port.Storage;
import sandpiper.engine.react.Listeners;
import sandpiper.engine.react.Surroundings;
import sandpiper.engine.rehearsal.Copies.Which;
import sandpiper.engine.rehearsal.RehearsalReport.ServedAt;
import sandpiper.engine.write.RecordWrites;
import sandpiper.engine.writer.WriteMetrics;
import sandpiper.engine.writer.Writer;

/**
 * Releases the draft on a copy of the live data while the service goes on, and serves that copy for
 * a day. Nothing is sent from there: events stay where they are raised, no schedule runs. One at a
 * time; the copy is gone at the end, or at the next start when the service was killed. Safe for use
 * by many threads.
 */
public final class Rehearsals implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Rehearsals.class);

    /** The name in the log under which requests stand. */
    private static final String LOGGED = "request";

    private static final Duration LONGEST = Duration.ofMinutes(60);
    private static final Duration SERVED = Duration.ofDays(1);
    private static final Duration STEP = Duration.ofMillis(20);

    /** A release and what is worked out after it; never many. */
    private static final int LONGEST_QUEUE = 100;

    private final Engine engine;
    private final Examples examples;
    private final Copies copies;
    private final CopyHost host;
    private final Clock clock;
    private volatile @Nullable Progress last;
    private @Nullable Thread thread;

    /**
     * Takes away what a service that was killed has left.
     *
     * @param copies makes the copies
     * @param host serves them
     */
    public Rehearsals(Engine engine, Examples examples, Copies copies, CopyHost host) {
        this.engine = engine;
        this.examples = examples;
        this.copies = copies;
        this.host = host;
        this.clock = engine.clock();
        copies.removeAll();
    }

    /** The one that is under way, or the last one since the start. */
    public Optional<RehearsalReport> last() {
        return Optional.ofNullable(last).map(Progress::report);
    }

    /**
     * Begins one with the draft as it is. One that came to its end and is still served is thrown
     * away for it.
     *
     * @throws RehearsalException when one is under way, the draft cannot be released, or there is
     *     no room for the copy
     */
    public synchronized RehearsalReport begin(Actor actor) {
        last().filter(known -> !known.stage().isOver())
                .ifPresent(known -> {
                    throw new RehearsalException(
                            "A rehearsal of %s is under way; wait for it, or end it."
                                    .formatted(known.by()));
                });
        var preview = engine.releases().preview();
        if (preview.hasErrors()) {
            throw new RehearsalException("The draft has errors; mend them first.");
        }
        if (preview.files().isEmpty()) {
            throw new RehearsalException("The draft is the same as the live release.");
        }
        stop(thread);
        copies.removeAll();
        copies.requireRoom(host.hasCalls());
        var progress = new Progress(clock.instant(), actor.name(), engine.live().number());
        last = progress;
        thread =
                Thread.ofPlatform()
                        .daemon()
                        .name("sandpiper-rehearsal")
                        .start(() -> run(progress, actor));
        return progress.report();
    }

    /** Ends the one that is under way or served; tells whether there was one. */
    public boolean end() {
        Thread running;
        synchronized (this) {
            running = thread;
        }
        return stop(running);
    }

    private static boolean stop(@Nullable Thread running) {
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

    private void run(Progress progress, Actor actor) {
        String why = "It could not go on; the log says why.";
        // What is logged of the copy must not be taken for the live service.
        MDC.put(LOGGED, "rehearsal");
        try {
            why = rehearsed(progress, actor);
        } finally {
            // Who hears that it is over finds nothing left of it.
            copies.removeAll();
            progress.over(why);
        }
    }

    /** Why it did not come to its end, or {@code null} when it did. */
    private @Nullable String rehearsed(Progress progress, Actor actor) {
        try {
            var start = Instant.now();
            long bytes = copies.make();
            requireNotEnded();
            boolean replaying = host.hasCalls();
            if (replaying) {
                copies.makeBefore();
            }
            progress.copied(bytes, since(start));
            int changes;
            try (var storage = copies.open();
                    var writer = Writer.of(storage, LONGEST_QUEUE, WriteMetrics.NONE)) {
                var drafts = new Drafts(storage, writer, clock);
                try (var releases = new Releases(storage, drafts, writer, clock, seeds(storage))) {
                    changes = releases.preview().files().size();
                    var refused =
                            rehearse(progress, storage, writer, drafts.files(), releases, actor);
                    if (refused != null) {
                        return refused;
                    }
                }
            }
            return serve(progress, changes, replaying);
        } catch (InterruptedException _) {
            return progress.report().stage().isOver() ? null : "It was ended.";
        } catch (RuntimeException e) {
            LOG.warn("A rehearsal could not go on", e);
            return String.valueOf(e.getMessage());
        }
    }

    /** On the copy nobody hears of what is made. */
    private SeedLoader seeds(Storage storage) {
        var sinks = new Surroundings(storage.events(), Listeners.NONE);
        return new SeedLoader(new RecordWrites(storage.answers(), storage.runs(), sinks, clock));
    }

    private @Nullable String rehearse(
            Progress progress,
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
            progress.refused(told);
            return why;
        }
        var released = since(start);
        var open = releases.recomputing().stream().map(one -> one.formula()).toList();
        progress.released(preview, released, open);
        var working = Instant.now();
        while (!releases.recomputing().isEmpty()) {
            if (since(working).compareTo(LONGEST) > 0) {
                return "Formulas were not worked out within an hour.";
            }
            Thread.sleep(STEP);
        }
        progress.workedOut(since(working));
        var alone = examples.run(files);
        requireNotEnded();
        var onRecords = examples.runOn(storage, writer, releases.live());
        var failing = alone.stream().filter(one -> !one.holds()).toList();
        progress.played(failing, besides(failing, now, onRecords));
        return null;
    }

    private @Nullable String serve(Progress progress, int changes, boolean replaying)
            throws InterruptedException {
        requireNotEnded();
        var report = progress.report();
        var made = copy(Which.REHEARSED, report, changes);
        try (var served = host.serve(made)) {
            if (replaying) {
                progress.replaying();
                var old = copy(Which.BEFORE, report, 0);
                progress.replayed(host.replay(old, served));
                copies.remove(Which.BEFORE);
            }
            var until = clock.instant().plus(SERVED);
            progress.served(new ServedAt(served.place(), until));
            Thread.sleep(SERVED);
            return null;
        }
    }

    private CopyHost.Copy copy(Which which, RehearsalReport report, int changes) {
        return new CopyHost.Copy(copies.place(which), report.begun(), changes, report.by());
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
}
