package sandpiper.engine;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.spy;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.Expected;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.AnswerStorage;
import sandpiper.engine.port.EventStorage;
import sandpiper.engine.port.HistoryStorage;
import sandpiper.engine.port.RunStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.react.Listeners;
import sandpiper.engine.react.Surroundings;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.write.RecordWrites;
import sandpiper.model.check.Definitions;
import sandpiper.model.logic.ReleaseLogic;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;

/**
 * The engine's path of a write over records in memory, with ports that take down what they hear.
 */
public final class Yard {
    /** Noon of a day in May. */
    public static final Clock CLOCK =
            Clock.fixed(Instant.parse("2026-05-01T12:00:00Z"), ZoneOffset.UTC);

    public final Release release;
    public final MemoryRecords records = spy(new MemoryRecords());
    public final HistoryStorage history = mock(HistoryStorage.class);
    public final AnswerStorage answers = mock(AnswerStorage.class);
    public final RunStorage runs = mock(RunStorage.class);
    public final EventStorage events = mock(EventStorage.class);
    public final Listeners listeners = mock(Listeners.class);
    public final Transaction transaction = mock(Transaction.class);
    public final LiveRelease live;
    public final RecordWrites writes;

    /** One package with these object files. */
    public Yard(String... objects) {
        this(files(objects));
    }

    private Yard(Map<String, String> files) {
        var checked = Definitions.check(files);
        this.release =
                checked.release()
                        .orElseThrow(() -> new AssertionError(checked.errors().toString()));
        this.live = new LiveRelease(1, release, ReleaseLogic.of(release), records, history);
        this.writes = new RecordWrites(answers, runs, new Surroundings(events, listeners), CLOCK);
        doAnswer(_ -> answering(records::mark)).when(transaction).mark();
        doAnswer(_ -> answering(records::undoToMark)).when(transaction).undoToMark();
        doAnswer(_ -> answering(records::keepSinceMark)).when(transaction).keepSinceMark();
        when(answers.find(any(), any(), any())).thenReturn(Optional.empty());
    }

    /** The same with further files of the package, by their paths in it. */
    public static Yard with(Map<String, String> more, String... objects) {
        var files = new HashMap<>(files(objects));
        more.forEach((path, text) -> files.put("yard/" + path, text));
        return new Yard(files);
    }

    private static @Nullable Object answering(Runnable change) {
        change.run();
        return null;
    }

    private static Map<String, String> files(String... objects) {
        var files = new HashMap<String, String>();
        files.put("yard/package.yaml", "package: yard\nversion: 1.0\n");
        for (int i = 0; i < objects.length; i++) {
            files.put("yard/objects/o%02d.yaml".formatted(i), objects[i]);
        }
        return files;
    }

    public ObjectType object(String name) {
        return release.object(name);
    }

    /** Names and values in turn. */
    public static Map<String, @Nullable Object> values(@Nullable Object... namesAndValues) {
        var values = new HashMap<String, @Nullable Object>();
        for (int i = 0; i < namesAndValues.length; i += 2) {
            values.put(String.valueOf(namesAndValues[i]), namesAndValues[i + 1]);
        }
        return values;
    }

    public Outcome run(RecordCommand command) {
        return run(command, RecordScope.ALL, RecordScope.ALL, false);
    }

    /** A command of somebody who reaches some records only, or must say a version. */
    public Outcome run(
            RecordCommand command, RecordScope reached, RecordScope after, boolean versioned) {
        return run(
                new Request(
                        command,
                        new Actor(Actor.Kind.USER, "ann", java.util.Set.of(), List.of()),
                        "test",
                        false,
                        false,
                        null,
                        reached,
                        after,
                        versioned,
                        Leave.NONE));
    }

    public Outcome run(Request request) {
        return writes.write(live, transaction, request);
    }

    public RecordCommand creating(String object, @Nullable Object... namesAndValues) {
        return new RecordCommand.Create(
                object(object), release.everythingOf(object(object)), values(namesAndValues));
    }

    public RecordCommand changing(
            String object,
            String key,
            @Nullable Long expected,
            @Nullable Object... namesAndValues) {
        return new RecordCommand.Change(
                object(object),
                release.everythingOf(object(object)),
                key,
                values(namesAndValues),
                Expected.version(expected));
    }

    public RecordCommand saving(
            String object, @Nullable String key, @Nullable Object... namesAndValues) {
        var tree = release.everythingOf(object(object));
        return new RecordCommand.Save(
                object(object), tree, tree, key, values(namesAndValues), Map.of(), false, null);
    }

    public Outcome create(String object, @Nullable Object... namesAndValues) {
        return run(creating(object, namesAndValues));
    }

    public Outcome change(String object, String key, @Nullable Object... namesAndValues) {
        return run(changing(object, key, null, namesAndValues));
    }

    public Outcome call(
            String object, @Nullable String key, String name, @Nullable Object... arguments) {
        return run(new RecordCommand.Call(object(object), key, name, values(arguments), null));
    }

    public Outcome transit(String object, String key, String transition) {
        return run(new RecordCommand.Transit(object(object), key, transition, null));
    }

    public Outcome retire(String object, String key) {
        return run(new RecordCommand.Remove(object(object), key, null));
    }

    /** The steps of a kind in the account of a command that is done. */
    public List<TraceStep> steps(RecordCommand command, TraceStep.Kind kind) {
        var outcome = run(new Request(command, Actor.SYSTEM, "test", false, true, null));
        return Objects.requireNonNull(((Outcome.Success) outcome).trace()).steps().stream()
                .filter(step -> step.kind() == kind)
                .toList();
    }

    /** The value of a field in stored form. */
    public @Nullable Object value(String object, String key, String field) {
        return records.values(object(object), key).get(field);
    }

    public static List<Fault> faults(Outcome outcome) {
        return outcome instanceof Outcome.Refused refused ? refused.faults() : List.of();
    }

    public static List<String> messages(Outcome outcome) {
        return faults(outcome).stream().map(Fault::message).toList();
    }
}
