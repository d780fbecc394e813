package sandpiper.engine;

import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.CallTrial;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Preview;
import sandpiper.engine.command.Request;
import sandpiper.engine.derive.OnReadFormulas;
import sandpiper.engine.outside.Outside;
import sandpiper.engine.port.ConflictException;
import sandpiper.engine.port.FileStorage;
import sandpiper.engine.port.HistoryStorage;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.read.FigureGroups;
import sandpiper.engine.read.RecordFinder;
import sandpiper.engine.record.Aggregation;
import sandpiper.engine.record.Figures;
import sandpiper.engine.record.Page;
import sandpiper.engine.record.Query;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.trial.Trial;
import sandpiper.engine.trial.Trials;
import sandpiper.engine.work.WorkIds;
import sandpiper.engine.write.RecordWrites;
import sandpiper.engine.writer.WriteJob;
import sandpiper.engine.writer.Writer;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.run.Evaluation;
import sandpiper.logic.run.RecordSource;
import sandpiper.model.logic.CompiledFunction;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ObjectType;
import sandpiper.model.type.FileBytes;
import sandpiper.model.type.KeptFile;

/**
 * Reading and changing records, whatever way they are asked for. Definitions may change at any
 * moment; each call works on the release that is live while it runs, which is why callers hand in
 * functions of it.
 */
public final class Records {
    private static final Duration SWAP_WAIT = Duration.ofSeconds(2);

    /** Tries of a read that meets what passes. */
    private static final int MOST_READS = 5;

    private final Storage storage;
    private final Supplier<LiveRelease> live;
    private final Writer writer;
    private final RecordWrites writes;
    private final Submissions submissions;
    private final Trials trials;
    private final Outside outside;
    private final Clock clock;

    Records(
            Storage storage,
            Supplier<LiveRelease> live,
            Writer writer,
            RecordWrites writes,
            Trials trials,
            Outside outside,
            Clock clock) {
        this.storage = storage;
        this.live = live;
        this.writer = writer;
        this.writes = writes;
        this.submissions = new Submissions(storage, live, writer, writes, outside, clock);
        this.trials = trials;
        this.outside = outside;
        this.clock = clock;
    }

    /**
     * Carries out a command and waits until it is durable.
     *
     * @param request makes the request for a release; called again when another has come meanwhile
     */
    public Outcome write(Function<LiveRelease, Request> request) {
        return submissions.write(request, (_, _, _) -> {});
    }

    /**
     * Makes the answer to what was done.
     *
     * @param <T> the answer
     */
    @FunctionalInterface
    public interface Answering<T> {
        /** Reads what it needs in a session that sees the change. */
        T make(LiveRelease live, Session session, Outcome.Success done);
    }

    /**
     * An outcome with its answer.
     *
     * @param answer {@code null} unless it was done, and done now
     */
    public record Answered<T>(Outcome outcome, @Nullable T answer) {}

    /**
     * The same with an answer about the state that this very change made, whatever others do to the
     * record right afterwards. Where many write at a time a new record is read when it is stored,
     * which others may have changed by then if they found it: reading it beside others that are
     * being added would make all but one give way.
     *
     * @throws StorageException.Uncertain when it was done and cannot be read
     */
    public <T> Answered<T> write(Function<LiveRelease, Request> request, Answering<T> answering) {
        var answer = new AtomicReference<@Nullable T>();
        var outcome =
                submissions.write(
                        request,
                        (now, transaction, done) -> {
                            if (!isReadAfterwards(done)) {
                                answer.set(answering.make(now, transaction, done));
                            }
                        });
        return outcome instanceof Outcome.Success done && isReadAfterwards(done)
                ? new Answered<>(outcome, answer(done, answering))
                : new Answered<>(outcome, answer.get());
    }

    private boolean isReadAfterwards(Outcome.Success done) {
        return storage.writers() > 1 && done instanceof Outcome.Done made && made.created();
    }

    private <T> T answer(Outcome.Success done, Answering<T> answering) {
        try {
            return read((now, session) -> answering.make(now, session, done));
        } catch (StorageException e) {
            throw new StorageException.Uncertain("it is stored: " + e.getMessage(), e);
        }
    }

    /** Hears of each of several changes right after it was made, before the next. */
    @FunctionalInterface
    public interface TurnListener {
        /** Nobody does. */
        TurnListener NONE = (_, _, _, _) -> {};

        /** Called on the writer's thread with the place of the change, from 0. */
        void done(int place, LiveRelease live, Session session, Outcome.Success done);
    }

    /**
     * Carries out several commands, and waits until they are durable.
     *
     * @return an outcome for each in their order; of {@link Grouping#ALL_OR_NONE} up to the first
     *     that is refused
     */
    public List<Outcome> write(List<Function<LiveRelease, Request>> requests, Grouping grouping) {
        return write(requests, grouping, TurnListener.NONE);
    }

    /** The same, telling of each change before it is committed. */
    public List<Outcome> write(
            List<Function<LiveRelease, Request>> requests,
            Grouping grouping,
            TurnListener listener) {
        return submissions.write(requests, grouping, listener);
    }

    /** What writing them {@linkplain Grouping#TOGETHER together} would come to. Nothing is kept. */
    public List<Outcome> tryTogether(List<Function<LiveRelease, Request>> makers) {
        return thrownAway((now, transaction) ->
                writes.write(
                        now,
                        transaction,
                        makers.stream().map(maker -> maker.apply(now)).toList(),
                        Grouping.TOGETHER,
                        RecordWrites.TurnListener.NONE));
    }

    /** What a record would be after a command. Nothing is kept. */
    public Preview preview(Function<LiveRelease, Request> maker, boolean traced) {
        return tryOut(maker, traced ? Tracer.on() : Tracer.off(), (_, trial) -> trial.preview());
    }

    /**
     * What calling a function would do. Nothing is kept.
     *
     * @param function makes the function that is called in the place of the released one, or {@code
     *     null} for that
     */
    public CallTrial tryCall(
            Function<LiveRelease, Request> maker,
            Function<LiveRelease, @Nullable CompiledFunction> function) {
        return tried(maker, Tracer.on(), function, (_, trial) -> trial.called());
    }

    /** Does something with a record as it would be after a command. Nothing is kept. */
    public <T> T tryOut(
            Function<LiveRelease, Request> maker,
            Tracer tracer,
            BiFunction<LiveRelease, Trial, T> reader) {
        return tried(maker, tracer, _ -> null, reader);
    }

    private <T> T tried(
            Function<LiveRelease, Request> maker,
            Tracer tracer,
            Function<LiveRelease, @Nullable CompiledFunction> function,
            BiFunction<LiveRelease, Trial, T> reader) {
        return thrownAway((now, transaction) ->
                trials.tried(
                        now,
                        transaction,
                        maker.apply(now),
                        tracer,
                        function.apply(now),
                        trial -> reader.apply(now, trial)));
    }

    private <T> T thrownAway(BiFunction<LiveRelease, Transaction, T> job) {
        return outside.tried(given ->
                Writer.await(
                        writer.submit(
                                new WriteJob<T>() {
                                    @Override
                                    public T run(Transaction transaction) {
                                        return given.in(() -> job.apply(live.get(), transaction));
                                    }

                                    @Override
                                    public boolean keeps(T result) {
                                        return false;
                                    }
                                })));
    }

    /**
     * Reads on one consistent state. When a release comes in between, which the tables then already
     * follow, it is read again by that release.
     */
    public <T> T read(BiFunction<LiveRelease, Session, T> reading) {
        long deadline = System.nanoTime() + SWAP_WAIT.toNanos();
        int tried = 0;
        while (true) {
            var now = live.get();
            try (var session = storage.snapshot()) {
                return reading.apply(now, session);
            } catch (ConflictException e) {
                // What a release changed under it, or a connection that was lost, is over soon.
                if (System.nanoTime() > deadline || ++tried > MOST_READS) {
                    throw e;
                }
            } catch (StorageException e) {
                if (System.nanoTime() > deadline || !isOutdated(now)) {
                    throw e;
                }
                Thread.onSpinWait();
            }
        }
    }

    private boolean isOutdated(LiveRelease used) {
        try (var session = storage.snapshot()) {
            return live.get().number() != used.number()
                    || storage.definitions().newestRelease(session).orElse(0) != used.number();
        }
    }

    /** One record with the chosen fields, by its natural key or public id. */
    public Optional<RecordView> find(
            LiveRelease now, Session session, ObjectType object, String key, FieldTree tree) {
        return find(now, session, object, key, tree, RecordScope.ALL);
    }

    /** The same within a scope; a record outside of it is not there. */
    public Optional<RecordView> find(
            LiveRelease now,
            Session session,
            ObjectType object,
            String key,
            FieldTree tree,
            RecordScope scope) {
        if (condition(now, object, scope) == null) {
            var natural =
                    KeyText.read(object, key)
                            .flatMap(values ->
                                    now.records().viewByKey(session, object, values, tree));
            if (natural.isPresent()) {
                return natural.map(found -> workedOut(now, session, object, tree, found));
            }
        }
        return RecordFinder.find(now.records(), session, object, key)
                .filter(found -> isWithin(now, session, object, found.number(), scope))
                .flatMap(found -> view(now, session, object, found.number(), tree));
    }

    /** The values of a record's natural key; nothing when it has none, or is gone. */
    public Optional<String> keyOf(
            LiveRelease now, Session session, ObjectType object, long number) {
        return now.records()
                .keyOf(session, object, number)
                .filter(key -> !key.isEmpty())
                .map(key -> KeyText.write(object, key));
    }

    /**
     * The same of a record that was read; it is asked for where the fields that were do not tell.
     */
    public Optional<String> keyOf(
            LiveRelease now,
            Session session,
            ObjectType object,
            FieldTree tree,
            RecordView record) {
        var key = new ArrayList<@Nullable Object>();
        var read = tree.paths().stream().map(FieldPath::written).toList();
        for (var field : object.key()) {
            int place = read.indexOf(field);
            if (place < 0) {
                return keyOf(now, session, object, record.number());
            }
            key.add(record.values()[place]);
        }
        return key.isEmpty() ? Optional.empty() : Optional.of(KeyText.write(object, key));
    }

    /** How many records of an object there are. */
    public RecordStorage.Count count(LiveRelease now, Session session, ObjectType object) {
        return now.records().count(session, object);
    }

    /** Whether a record is within a scope. */
    public boolean isWithin(
            LiveRelease now, Session session, ObjectType object, long number, RecordScope scope) {
        var condition = condition(now, object, scope);
        return condition == null || now.records().holds(session, object, number, condition);
    }

    /** A scope as a condition for queries, or {@code null} when it holds every record. */
    public @Nullable Condition condition(LiveRelease now, ObjectType object, RecordScope scope) {
        if (scope.conditions().isEmpty()) {
            return null;
        }
        var run = new Evaluation(clock.instant(), object.zone(), RecordSource.NONE);
        return new Condition.All(
                scope.conditions().stream()
                        .map(text -> now.logic().condition(object, text).condition(run))
                        .toList());
    }

    /** A record by its number, with what is worked out only when it is read. */
    public Optional<RecordView> view(
            LiveRelease now, Session session, ObjectType object, long number, FieldTree tree) {
        return now.records()
                .view(session, object, number, tree)
                .map(found -> workedOut(now, session, object, tree, found));
    }

    private RecordView workedOut(
            LiveRelease now, Session session, ObjectType object, FieldTree tree, RecordView found) {
        return OnReadFormulas.in(now, session, clock.instant(), object, tree, List.of(found))
                .getFirst();
    }

    /** One page of a query. */
    public Page page(LiveRelease now, Session session, Query query) {
        var page = now.records().page(session, query);
        return new Page(
                OnReadFormulas.in(
                        now,
                        session,
                        clock.instant(),
                        query.object(),
                        query.tree(),
                        page.records()),
                page.next(),
                page.total());
    }

    /**
     * What the records of a query come to; which page it asks for plays no part.
     *
     * @param sums stored numbers to add up
     * @param grouping {@code null} for no groups
     */
    public Figures figures(
            LiveRelease now,
            Session session,
            Query query,
            List<Field> sums,
            Figures.@Nullable Grouping grouping) {
        return FigureGroups.of(
                wanted -> now.records().aggregate(session, query, wanted),
                sums,
                grouping,
                query.object().zone());
    }

    /** What the records of a query come to; its order and page play no part. */
    public List<Aggregation.Row> aggregate(
            LiveRelease now, Session session, Query query, Aggregation wanted) {
        return now.records().aggregate(session, query, wanted);
    }

    /** What happened to a record, newest first. */
    public List<HistoryStorage.Entry> history(
            LiveRelease now, Session session, ObjectType object, RecordView record, int limit) {
        return now.history().of(session, object, record.id(), limit);
    }

    /** What happened to any record of late, newest first. */
    public List<HistoryStorage.Entry> latestChanges(int limit) {
        return read((now, session) -> now.history().latest(session, limit));
    }

    /**
     * What is in a file of a record that somebody may read; nothing when its bytes are not kept.
     */
    public Optional<FileBytes> bytes(Session session, KeptFile file) {
        return storage.files().bytes(session, file.sha256());
    }

    /** How many files are kept, and how many bytes they have. */
    public FileStorage.Total files() {
        try (var session = storage.snapshot()) {
            return storage.files().total(session);
        }
    }

    /** Lets go of the bytes of files that no record has any more. */
    void removeUnusedFiles() {
        boolean isSome;
        try (var session = storage.snapshot()) {
            isSome = storage.files().hasUnused(session);
        }
        if (isSome) {
            writer.write(transaction -> storage.files().removeUnused(transaction));
        }
    }

    /** A public id that nobody has, for a record that is to be made. */
    public UUID newId() {
        return WorkIds.next();
    }
}
