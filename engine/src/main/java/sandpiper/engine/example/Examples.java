package sandpiper.engine.example;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import sandpiper.engine.access.Actor;
import sandpiper.engine.definition.Drafts;
import sandpiper.engine.definition.ReleasePreview;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.port.Storage;
import sandpiper.engine.react.Listeners;
import sandpiper.engine.react.Surroundings;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.write.ReactionWrites;
import sandpiper.engine.write.RecordWrites;
import sandpiper.engine.writer.WriteMetrics;
import sandpiper.engine.writer.Writer;
import sandpiper.model.check.Definitions;

/** Plays the examples of a set of definitions. */
public final class Examples {
    /** Hears everything, so that an example can expect any event. */
    private static final Listeners ALL =
            new Listeners() {
                @Override
                public boolean hear(LiveRelease live, String event) {
                    return true;
                }

                @Override
                public void raised() {
                    // looked at when the example is over
                }
            };

    private final Function<Clock, Storage> stores;

    /** {@code stores} makes an empty store that is gone when it is closed. */
    public Examples(Function<Clock, Storage> stores) {
        this.stores = stores;
    }

    /** Each example waits for what it does, so there are never many. */
    private static final int LONGEST_QUEUE = 100;

    /**
     * Plays all examples, each from an empty store on, in the order of the requirements.
     *
     * @param files definitions without errors, by path
     * @throws IllegalArgumentException when they have errors
     */
    public List<ExampleResult> run(Map<String, String> files) {
        boolean none =
                Definitions.check(files)
                        .release()
                        .filter(release ->
                                release.requirements().stream()
                                        .allMatch(one -> one.examples().isEmpty()))
                        .isPresent();
        if (none) {
            return List.of();
        }
        var clock = new DayClock();
        try (var storage = stores.apply(clock);
                var writer = Writer.of(storage, LONGEST_QUEUE, WriteMetrics.NONE)) {
            var live = release(storage, writer, clock, files);
            return play(storage, writer, live, clock, false);
        }
    }

    /**
     * Plays all examples on the records that are there; what is given in an example holds for the
     * record that has its key. None of what they do is kept.
     *
     * @param writer of the storage, which nobody else uses meanwhile
     */
    public List<ExampleResult> runOn(Storage storage, Writer writer, LiveRelease live) {
        return play(storage, writer, live, new DayClock(), true);
    }

    private static List<ExampleResult> play(
            Storage storage, Writer writer, LiveRelease live, DayClock clock, boolean onRecords) {
        var sinks = new Surroundings(storage.events(), ALL);
        var writes = new RecordWrites(storage.answers(), storage.runs(), sinks, clock);
        var reactions = new ReactionWrites(sinks, storage.runs(), clock);
        var results = new ArrayList<ExampleResult>();
        for (var requirement : live.release().requirements()) {
            for (var example : requirement.examples()) {
                clock.now = example.today().atTime(12, 0).toInstant(ZoneOffset.UTC);
                // One after the other on the writer's thread, each in a transaction of its own
                // that is never committed.
                results.add(
                        writer.write(
                                new ExampleRunner(
                                        live,
                                        storage,
                                        writes,
                                        reactions,
                                        requirement,
                                        example,
                                        onRecords)));
            }
        }
        return results;
    }

    private static LiveRelease release(
            Storage storage, Writer writer, Clock clock, Map<String, String> files) {
        var drafts = new Drafts(storage, writer, clock);
        drafts.push(files, Actor.SYSTEM);
        var releases = new Releases(storage, drafts, writer, clock);
        var result = releases.release("examples", Releases.Accepted.NOTHING, Actor.SYSTEM);
        if (result instanceof ReleasePreview.Result.Refused(_, var why)) {
            throw new IllegalArgumentException(why);
        }
        return releases.live();
    }

    /** Stands still at noon of the day an example takes place on. */
    private static final class DayClock extends Clock {
        private volatile Instant now = Instant.EPOCH;

        @Override
        public ZoneId getZone() {
            return ZoneOffset.UTC;
        }

        @Override
        public Clock withZone(ZoneId zone) {
            return Clock.fixed(now, zone);
        }

        @Override
        public Instant instant() {
            return now;
        }
    }
}
