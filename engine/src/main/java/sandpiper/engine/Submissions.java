package sandpiper.engine;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.Records.TurnListener;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.outside.AnswersWantedException;
import sandpiper.engine.outside.GivenAnswers;
import sandpiper.engine.outside.Outside;
import sandpiper.engine.port.RunStorage;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.write.RecordWrites;
import sandpiper.engine.write.Runs;
import sandpiper.engine.writer.WriteJob;
import sandpiper.engine.writer.Writer;

/**
 * Requests on their way to the writer and back: made again when a release comes in between, waited
 * for until they are durable, and accounted for afterwards. Safe to be used by many threads.
 */
final class Submissions {
    /** With this much to do, accounts of what was refused are not kept. */
    private static final int TRACES_STOP_AT = 100;

    private final Storage storage;
    private final Supplier<LiveRelease> live;
    private final Writer writer;
    private final RecordWrites writes;
    private final Outside outside;
    private final Clock clock;

    Submissions(
            Storage storage,
            Supplier<LiveRelease> live,
            Writer writer,
            RecordWrites writes,
            Outside outside,
            Clock clock) {
        this.storage = storage;
        this.live = live;
        this.writer = writer;
        this.writes = writes;
        this.outside = outside;
        this.clock = clock;
    }

    /** Carries out one and waits until it is durable. */
    Outcome write(Function<LiveRelease, Request> maker, DoneListener listener) {
        return settled(maker, listener, submit(maker, listener, null));
    }

    /** Carries out several and waits until they are durable. */
    List<Outcome> write(
            List<Function<LiveRelease, Request>> requests,
            Grouping grouping,
            TurnListener listener) {
        return switch (grouping) {
            // They share transactions with whatever else waits, so many together are fast.
            case EACH -> each(requests, listener);
            case TOGETHER, ALL_OR_NONE ->
                    outside.answered(given -> grouped(requests, grouping, listener, given));
        };
    }

    private List<Outcome> each(
            List<Function<LiveRelease, Request>> requests, TurnListener listener) {
        var listeners =
                IntStream.range(0, requests.size())
                        .<DoneListener>mapToObj(place ->
                                (now, transaction, done) ->
                                        listener.done(place, now, transaction, done))
                        .toList();
        long start = System.nanoTime();
        var asked = live.get();
        var made = requests.stream().map(maker -> maker.apply(asked)).toList();
        var outcomes =
                writer.submitInOrder(
                        IntStream.range(0, made.size())
                                .mapToObj(place ->
                                        job(
                                                requests.get(place),
                                                listeners.get(place),
                                                null,
                                                asked,
                                                made.get(place)))
                                .toList());
        return IntStream.range(0, requests.size())
                .mapToObj(place ->
                        settled(
                                requests.get(place),
                                listeners.get(place),
                                new Submitted(made.get(place), start, outcomes.get(place))))
                .toList();
    }

    /** A call that was done is noted with what it did; of one that was refused nothing is kept. */
    private void noteRefusal(Request request, long start, Outcome outcome) {
        if (outcome instanceof Outcome.Refused refused
                && request.command() instanceof RecordCommand.Call call
                && writer.waiting() < TRACES_STOP_AT) {
            note(Runs.of(request, call, refused, clock.instant(), start));
        }
    }

    @SuppressWarnings("FutureReturnValueIgnored") // nobody waits for the log
    private void note(RunStorage.Run run) {
        writer.submit(transaction -> {
            storage.runs().add(transaction, run);
            return true;
        });
    }

    /**
     * Keeps the account of a request, so that whoever is told of it can read it at once. Under
     * pressure it is dropped, and nobody is told of it.
     */
    private Outcome traceKept(Outcome outcome) {
        var trace =
                switch (outcome) {
                    case Outcome.Success done -> done.trace();
                    case Outcome.Refused refused -> refused.trace();
                    case Outcome.Repeated _ -> null;
                };
        if (trace == null) {
            return outcome;
        }
        if (writer.waiting() >= TRACES_STOP_AT && outcome instanceof Outcome.Refused refused) {
            return new Outcome.Refused(refused.reason(), refused.faults());
        }
        Writer.await(
                writer.submit(transaction -> {
                    storage.traces().put(transaction, trace);
                    return true;
                }));
        return outcome;
    }

    private List<Outcome> grouped(
            List<Function<LiveRelease, Request>> makers,
            Grouping grouping,
            TurnListener listener,
            GivenAnswers given) {
        long start = System.nanoTime();
        var asked = new AtomicReference<List<Request>>(List.of());
        var outcomes =
                Writer.await(
                        writer.submit(
                                new WriteJob<List<Outcome>>() {
                                    @Override
                                    public List<Outcome> run(Transaction transaction) {
                                        var now = live.get();
                                        var requests = made(makers, now);
                                        asked.set(requests);
                                        return given.in(() ->
                                                writes.write(
                                                        now,
                                                        transaction,
                                                        requests,
                                                        grouping,
                                                        (place, done) ->
                                                                listener.done(
                                                                        place,
                                                                        now,
                                                                        transaction,
                                                                        done)));
                                    }

                                    @Override
                                    public boolean keeps(List<Outcome> outcomes) {
                                        return isKept(grouping, outcomes);
                                    }
                                },
                                makers.size()));
        var requests = Objects.requireNonNull(asked.get());
        boolean undone = !isKept(grouping, outcomes);
        var told = new ArrayList<Outcome>();
        for (int i = 0; i < outcomes.size(); i++) {
            var outcome = outcomes.get(i);
            // What was done before the refusal is undone with it, and has no account to be kept.
            if (!undone || outcome instanceof Outcome.Refused) {
                outcome = traceKept(outcome);
                noteRefusal(requests.get(i), start, outcome);
            }
            told.add(outcome);
        }
        return told;
    }

    private static boolean isKept(Grouping grouping, List<Outcome> outcomes) {
        return grouping != Grouping.ALL_OR_NONE
                || outcomes.stream().noneMatch(Outcome.Refused.class::isInstance);
    }

    private static List<Request> made(
            List<Function<LiveRelease, Request>> makers, LiveRelease now) {
        return makers.stream().map(maker -> maker.apply(now)).toList();
    }

    /** What came of a request; when it wants answers from outside, it is made again with them. */
    private Outcome settled(
            Function<LiveRelease, Request> maker, DoneListener listener, Submitted first) {
        var outcome = traceKept(awaited(maker, listener, first));
        noteRefusal(first.request(), first.start(), outcome);
        return outcome;
    }

    private Outcome awaited(
            Function<LiveRelease, Request> maker, DoneListener listener, Submitted first) {
        try {
            return Writer.await(first.outcome());
        } catch (AnswersWantedException _) {
            return outside.answered(
                    given -> Writer.await(submit(maker, listener, given).outcome()));
        }
    }

    /**
     * A request on its way.
     *
     * @param start by {@link System#nanoTime}
     */
    private record Submitted(Request request, long start, CompletableFuture<Outcome> outcome) {}

    /** Hears of what was done before it is committed. */
    @FunctionalInterface
    interface DoneListener {
        void done(LiveRelease live, Transaction transaction, Outcome.Success done);
    }

    /** {@code given} are answers from outside, {@code null} when nobody has asked for any yet. */
    private Submitted submit(
            Function<LiveRelease, Request> maker,
            DoneListener listener,
            @Nullable GivenAnswers given) {
        long start = System.nanoTime();
        var asked = live.get();
        var request = maker.apply(asked);
        return new Submitted(
                request, start, writer.submit(job(maker, listener, given, asked, request)));
    }

    private WriteJob<Outcome> job(
            Function<LiveRelease, Request> maker,
            DoneListener listener,
            @Nullable GivenAnswers given,
            LiveRelease asked,
            Request request) {
        return new WriteJob<Outcome>() {
            @Override
            public Outcome run(Transaction transaction) {
                var now = live.get();
                var current = now.number() == asked.number() ? request : maker.apply(now);
                var answers = given == null ? GivenAnswers.NOTHING : given;
                var outcome =
                        now.release().connections().isEmpty()
                                ? writes.write(now, transaction, current)
                                : answers.in(() -> writes.write(now, transaction, current));
                if (outcome instanceof Outcome.Success done) {
                    listener.done(now, transaction, done);
                }
                return outcome;
            }

            @Override
            public boolean keeps(Outcome outcome) {
                return outcome instanceof Outcome.Success;
            }
        };
    }
}
