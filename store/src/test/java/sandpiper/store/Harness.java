package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.Engine;
import sandpiper.engine.Tuning;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.CallTrial;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Preview;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.definition.ReleasePreview;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.delivery.Backoff;
import sandpiper.engine.outside.OutsideServices;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.record.Query;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.Tracer;
import sandpiper.logic.check.Checker;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.logic.value.ValueText;
import sandpiper.model.logic.NameContexts;
import sandpiper.model.release.ObjectType;
import sandpiper.model.type.OutsideCode;

/** An engine on a file of its own, with short words for what tests do. */
final class Harness implements AutoCloseable {
    static final Clock CLOCK = Clock.fixed(Instant.parse("2026-05-01T10:00:00Z"), ZoneOffset.UTC);

    final Engine engine;

    /** What the engine stands on, for tests that look beneath it. */
    final Storage storage;

    Harness(Path folder) {
        this(folder, CLOCK, Backoff.OF_HANDLERS);
    }

    /** The same on a storage that is opened already. */
    Harness(Storage storage) {
        this.storage = storage;
        this.engine = new Engine(storage, CLOCK);
    }

    Harness(Path folder, Clock clock, Backoff ofHandlers) {
        storage = Stores.open(folder.resolve("data.db"), clock);
        engine = new Engine(storage, clock, Tuning.USUAL.with(ofHandlers));
    }

    /** The same with a service outside. */
    Harness(Path folder, Clock clock, Backoff ofHandlers, OutsideServices outside) {
        storage = Stores.open(folder.resolve("data.db"), clock);
        engine = new Engine(storage, clock, Tuning.USUAL.with(ofHandlers).with(outside));
    }

    /** Releases object files of one package, each with its text. */
    Harness release(String... texts) {
        var files = new HashMap<String, String>();
        files.put("marina/package.yaml", "package: marina\nversion: 1.0\n");
        for (int i = 0; i < texts.length; i++) {
            files.put("marina/objects/o%02d.yaml".formatted(i), texts[i]);
        }
        return release(files);
    }

    Harness release(Map<String, String> files) {
        engine.drafts().push(files, Actor.SYSTEM);
        assertThat(engine.drafts().check().errors()).isEmpty();
        assertThat(
                        engine.releases()
                                .release("test", new Releases.Accepted(true, true), Actor.SYSTEM))
                .isInstanceOf(ReleasePreview.Result.Released.class);
        return this;
    }

    private static Request request(RecordCommand command) {
        return new Request(command, Actor.SYSTEM, "test", false);
    }

    static Request creating(LiveRelease live, String object, Map<String, @Nullable Object> values) {
        var type = live.release().object(object);
        return request(new RecordCommand.Create(type, live.release().everythingOf(type), values));
    }

    /** Names and values in turn. */
    static Map<String, @Nullable Object> values(@Nullable Object... namesAndValues) {
        var values = new HashMap<String, @Nullable Object>();
        for (int i = 0; i < namesAndValues.length; i += 2) {
            values.put(String.valueOf(namesAndValues[i]), namesAndValues[i + 1]);
        }
        return values;
    }

    Outcome create(String object, @Nullable Object... namesAndValues) {
        return engine.records().write(live -> creating(live, object, values(namesAndValues)));
    }

    List<Outcome> createTogether(String object, List<Map<String, @Nullable Object>> all) {
        return create(object, all, Grouping.TOGETHER);
    }

    /** One after the other, all or none. */
    List<Outcome> createInTurn(String object, List<Map<String, @Nullable Object>> all) {
        return create(object, all, Grouping.ALL_OR_NONE);
    }

    private List<Outcome> create(
            String object, List<Map<String, @Nullable Object>> all, Grouping grouping) {
        return engine.records()
                .write(
                        all.stream()
                                .map(one ->
                                        (java.util.function.Function<LiveRelease, Request>)
                                                live -> creating(live, object, one))
                                .toList(),
                        grouping);
    }

    Outcome change(String object, String key, @Nullable Object... namesAndValues) {
        return engine.records()
                .write(live -> {
                    var type = live.release().object(object);
                    return request(
                            new RecordCommand.Change(
                                    type,
                                    live.release().everythingOf(type),
                                    key,
                                    values(namesAndValues),
                                    null));
                });
    }

    Outcome remove(String object, String key) {
        return engine.records()
                .write(live ->
                        request(new RecordCommand.Remove(live.release().object(object), key, null))
                                .with(new Leave(false, true)));
    }

    Outcome restore(String object, String key) {
        return engine.records()
                .write(live ->
                        request(new RecordCommand.Restore(live.release().object(object), key)));
    }

    Outcome transit(String object, String key, String transition) {
        return engine.records()
                .write(live ->
                        request(
                                new RecordCommand.Transit(
                                        live.release().object(object), key, transition, null)));
    }

    /** Calls a function on a record, or on the object as a whole when there is no key. */
    Outcome call(String object, @Nullable String key, String function, @Nullable Object... named) {
        return call(Actor.SYSTEM, object, key, function, named);
    }

    Outcome call(
            Actor actor,
            String object,
            @Nullable String key,
            String function,
            @Nullable Object... named) {
        return engine.records()
                .write(live ->
                        new Request(
                                new RecordCommand.Call(
                                        live.release().object(object),
                                        key,
                                        function,
                                        values(named),
                                        null),
                                actor,
                                "test",
                                false));
    }

    /** What calling a function would do. */
    CallTrial tryCall(String object, @Nullable String key, String function) {
        return engine.records()
                .tryCall(
                        live ->
                                request(
                                        new RecordCommand.Call(
                                                live.release().object(object),
                                                key,
                                                function,
                                                Map.of(),
                                                null)),
                        _ -> null);
    }

    /** What a code of an outside service was called when it was chosen. */
    @Nullable String label(String object, String key, String field) {
        return engine.records()
                .read((live, session) -> {
                    var type = live.release().object(object);
                    var tree = live.release().everythingOf(type);
                    var view = engine.records().find(live, session, type, key, tree).orElseThrow();
                    int at = type.fields().get(field).index();
                    return view.values()[at] instanceof OutsideCode(_, var label) ? label : null;
                });
    }

    /** What a function gave back. */
    static @Nullable Object result(Outcome outcome) {
        assertThat(outcome).as("%s", messages(outcome)).isInstanceOf(Outcome.Success.class);
        var result = ((Outcome.Success) outcome).result();
        return result == null ? null : result.value();
    }

    Preview preview(String object, @Nullable Object... namesAndValues) {
        return engine.records()
                .preview(live -> creating(live, object, values(namesAndValues)), false);
    }

    /** The plain values of a record. */
    Map<String, @Nullable Object> show(String object, String key) {
        return engine.records()
                .read((live, session) -> {
                    var type = live.release().object(object);
                    var tree = live.release().everythingOf(type);
                    return PlainRecords.of(
                            tree,
                            engine.records().find(live, session, type, key, tree).orElseThrow());
                });
    }

    /** The value of one field as text. */
    String text(String object, String key, String field) {
        return String.valueOf(show(object, key).get(field));
    }

    /** The keys of the records that a filter lets through. */
    List<String> keys(String object, String filter) {
        return engine.records()
                .read((live, session) -> {
                    var type = live.release().object(object);
                    var checked =
                            (Checked.Accepted)
                                    ConditionChecker.check(
                                            filter,
                                            live.release().recordType(type),
                                            Clock.systemUTC());
                    var tree = live.release().everythingOf(type);
                    var query =
                            new Query(
                                    type,
                                    tree,
                                    checked.condition(),
                                    null,
                                    List.of(),
                                    false,
                                    null,
                                    0,
                                    500,
                                    false,
                                    Query.Retired.WITHOUT);
                    return engine.records().page(live, session, query).records().stream()
                            .map(view -> PlainRecords.of(tree, view))
                            .map(plain -> String.valueOf(plain.get(type.key().getFirst())))
                            .toList();
                });
    }

    /** What an expression about a record comes to, as text. */
    String evaluate(String object, String key, String expression) {
        return engine.records()
                .tryOut(
                        live -> {
                            var type = live.release().object(object);
                            return request(
                                    new RecordCommand.Change(
                                            type,
                                            live.release().everythingOf(type),
                                            key,
                                            Map.of(),
                                            null));
                        },
                        Tracer.off(),
                        (live, trial) -> {
                            ObjectType type = live.release().object(object);
                            return ValueText.of(
                                    trial.value(
                                            Checker.check(
                                                    expression,
                                                    NameContexts.ofChange(live.release(), type))));
                        });
    }

    static List<String> messages(Outcome outcome) {
        return outcome instanceof Outcome.Refused refused
                ? refused.faults().stream().map(Fault::message).toList()
                : List.of();
    }

    /** Reads from what the engine stands on. */
    /** Waits until all events that were raised have their place in the order. */
    void untilArrived() {
        long end = System.nanoTime() + 10_000_000_000L;
        while (look(session -> storage.events().areArriving(session))) {
            assertThat(System.nanoTime()).isLessThan(end);
            Thread.onSpinWait();
        }
    }

    <T> T look(Function<Session, T> reading) {
        try (var session = storage.snapshot()) {
            return reading.apply(session);
        }
    }

    @Override
    public void close() {
        engine.close();
    }
}
