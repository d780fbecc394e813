package sandpiper.engine.write;

import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Outcome.Reason;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.AnswerStorage;
import sandpiper.engine.port.RunStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.react.Surroundings;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.Tracer;
import sandpiper.logic.run.Evaluation;
import sandpiper.model.definition.Removal;

/**
 * Carries out requests in the writer's transaction. However many come and however they belong
 * together, a repeated one is answered again, a function that ran is in the log of runs, and what
 * was refused leaves nothing behind.
 */
public final class RecordWrites {
    /** What was refused after longer than this is not done again for its account. */
    private static final Duration MOST_TO_REPEAT = Duration.ofMillis(200);

    private final RepeatedRequests repeated;
    private final RequestTraces traces;
    private final RunStorage runs;
    private final Surroundings sinks;
    private final Clock clock;

    public RecordWrites(AnswerStorage answers, RunStorage runs, Surroundings sinks, Clock clock) {
        this.repeated = new RepeatedRequests(answers, clock);
        this.traces = new RequestTraces(clock);
        this.runs = runs;
        this.sinks = sinks;
        this.clock = clock;
    }

    /** Hears of each request right after it was done, before the next. */
    @FunctionalInterface
    public interface TurnListener {
        /** Nobody does. */
        TurnListener NONE = (_, _) -> {};

        /** {@code place} is that of the request, from 0. What this throws undoes the change. */
        void done(int place, Outcome.Success done);
    }

    /**
     * Carries out requests on a release.
     *
     * @return an outcome for each, in their order; with {@link Grouping#ALL_OR_NONE} up to the
     *     first that is refused, and then the caller undoes what was done before it
     */
    public List<Outcome> write(
            LiveRelease live,
            Transaction transaction,
            List<Request> requests,
            Grouping grouping,
            TurnListener listener) {
        return switch (grouping) {
            case EACH -> each(live, transaction, requests, listener);
            case TOGETHER -> together(live, transaction, requests, listener);
            case ALL_OR_NONE -> inTurn(live, transaction, requests, listener);
        };
    }

    /** Carries out one request; the caller undoes it when it is refused. */
    public Outcome write(LiveRelease live, Transaction transaction, Request request) {
        var earlier = repeated.earlier(transaction, request);
        return earlier != null ? earlier : now(live, transaction, request, true);
    }

    private List<Outcome> each(
            LiveRelease live,
            Transaction transaction,
            List<Request> requests,
            TurnListener listener) {
        var outcomes = new ArrayList<Outcome>();
        for (var request : requests) {
            outcomes.add(
                    marked(
                            transaction,
                            () -> write(live, transaction, request),
                            outcomes.size(),
                            listener));
        }
        return outcomes;
    }

    /** Undoes what is refused, and tells of what is done. */
    private static Outcome marked(
            Transaction transaction, Supplier<Outcome> work, int place, TurnListener listener) {
        transaction.mark();
        var outcome = work.get();
        if (outcome instanceof Outcome.Success done) {
            listener.done(place, done);
            transaction.keepSinceMark();
        } else {
            transaction.undoToMark();
        }
        return outcome;
    }

    private List<Outcome> inTurn(
            LiveRelease live,
            Transaction transaction,
            List<Request> requests,
            TurnListener listener) {
        var outcomes = new ArrayList<Outcome>();
        for (var request : requests) {
            var outcome = write(live, transaction, request);
            outcomes.add(outcome);
            if (outcome instanceof Outcome.Refused) {
                break;
            }
            if (outcome instanceof Outcome.Success done) {
                listener.done(outcomes.size() - 1, done);
            }
        }
        return outcomes;
    }

    /** What is deleted for good is so at once, and so never part of a shared piece of work. */
    private static boolean canShare(Request request) {
        return !(request.command() instanceof RecordCommand.Remove remove)
                || remove.object().removal() != Removal.DELETE;
    }

    private List<Outcome> together(
            LiveRelease live,
            Transaction transaction,
            List<Request> requests,
            TurnListener listener) {
        if (!requests.stream().allMatch(RecordWrites::canShare)) {
            return each(live, transaction, requests, listener);
        }
        long start = System.nanoTime();
        var outcomes = new ArrayList<@Nullable Outcome>();
        requests.forEach(request -> outcomes.add(repeated.earlier(transaction, request)));
        var open = open(outcomes);
        while (!open.isEmpty()) {
            if (tryTogether(live, transaction, requests, open, outcomes)) {
                open.forEach(place ->
                        finish(
                                transaction,
                                requests.get(place),
                                Objects.requireNonNull(outcomes.get(place)),
                                start));
                open.forEach(place -> {
                    if (outcomes.get(place) instanceof Outcome.Success done) {
                        listener.done(place, done);
                    }
                });
                break;
            }
            int before = open.size();
            open = open(outcomes);
            if (open.size() == before) {
                oneByOne(live, transaction, requests, open, outcomes, listener);
                break;
            }
        }
        return outcomes.stream().map(Objects::requireNonNull).toList();
    }

    private static List<Integer> open(List<@Nullable Outcome> outcomes) {
        return IntStream.range(0, outcomes.size())
                .filter(place -> outcomes.get(place) == null)
                .boxed()
                .toList();
    }

    /** Whether all that were open were done; refusals are put in their places. */
    private boolean tryTogether(
            LiveRelease live,
            Transaction transaction,
            List<Request> requests,
            List<Integer> open,
            List<@Nullable Outcome> outcomes) {
        transaction.mark();
        var tried =
                new Execution(
                                live,
                                transaction,
                                open.stream().map(requests::get).toList(),
                                sinks,
                                clock.instant(),
                                Tracer.off())
                        .together();
        boolean done = tried.stream().allMatch(Outcome.Success.class::isInstance);
        if (done) {
            transaction.keepSinceMark();
        } else {
            transaction.undoToMark();
        }
        for (int i = 0; i < tried.size(); i++) {
            outcomes.set(open.get(i), tried.get(i));
        }
        return done;
    }

    /** When nobody in particular is at fault, each is asked alone, while there is time. */
    private void oneByOne(
            LiveRelease live,
            Transaction transaction,
            List<Request> requests,
            List<Integer> open,
            List<@Nullable Outcome> outcomes,
            TurnListener listener) {
        long end = System.nanoTime() + Evaluation.LONGEST.toNanos();
        for (int place : open) {
            outcomes.set(
                    place,
                    System.nanoTime() < end
                            ? marked(
                                    transaction,
                                    () -> now(live, transaction, requests.get(place), false),
                                    place,
                                    listener)
                            : tooMany());
        }
    }

    private static Outcome tooMany() {
        return Outcome.Refused.because(
                Reason.INVALID,
                RecordCode.TOO_MUCH,
                "The rows before this one took longer than %,d milliseconds; send fewer at once."
                        .formatted(Evaluation.LONGEST.toMillis()));
    }

    /** Carries out a request that was not done before, and keeps what is to be kept of it. */
    private Outcome now(
            LiveRelease live, Transaction transaction, Request request, boolean accounts) {
        long start = System.nanoTime();
        var outcome =
                request.traced()
                        ? traced(live, transaction, request)
                        : untraced(live, transaction, request, accounts);
        finish(transaction, request, outcome, start);
        return outcome;
    }

    private void finish(Transaction transaction, Request request, Outcome outcome, long start) {
        if (request.command() instanceof RecordCommand.Call call
                && outcome instanceof Outcome.Success done) {
            runs.add(transaction, Runs.of(request, call, done, clock.instant(), start));
        }
        repeated.keep(transaction, request, outcome);
    }

    private Outcome untraced(
            LiveRelease live, Transaction transaction, Request request, boolean accounts) {
        transaction.mark();
        long start = System.nanoTime();
        var outcome = alone(live, transaction, request, Tracer.off());
        boolean tells =
                accounts && outcome instanceof Outcome.Refused refused && isWorthATrace(refused);
        boolean repeats = tells && System.nanoTime() - start <= MOST_TO_REPEAT.toNanos();
        if (repeats) {
            // What was refused is done once more with an account of it: the data is the same as
            // before, so it comes to the same, and requests that go well pay nothing.
            transaction.undoToMark();
            return traced(live, transaction, request);
        }
        transaction.keepSinceMark();
        return tells ? traces.shortly(request, (Outcome.Refused) outcome) : outcome;
    }

    /** Nothing can be learnt from the account of a record that does not exist. */
    private static boolean isWorthATrace(Outcome.Refused refused) {
        return refused.reason() == Reason.INVALID
                || refused.reason() == Reason.CONFLICT
                || refused.reason() == Reason.UNAVAILABLE;
    }

    private Outcome traced(LiveRelease live, Transaction transaction, Request request) {
        var tracer = RequestTraces.begin(request);
        return traces.end(request, alone(live, transaction, request, tracer), tracer);
    }

    private Outcome alone(
            LiveRelease live, Transaction transaction, Request request, Tracer tracer) {
        return new Execution(live, transaction, List.of(request), sinks, clock.instant(), tracer)
                .alone();
    }
}
