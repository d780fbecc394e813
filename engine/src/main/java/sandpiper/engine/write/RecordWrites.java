package sandpiper.engine.write;

import com.fasterxml.uuid.Generators;
import com.fasterxml.uuid.NoArgGenerator;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Objects;
import java.util.function.BiConsumer;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.CallTrial;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Outcome.Reason;
import sandpiper.engine.command.Preview;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.AnswerStorage;
import sandpiper.engine.port.RunStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.trace.Trace;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.logic.run.BudgetException;
import sandpiper.logic.run.Evaluation;
import sandpiper.model.logic.CompiledFunction;

/** Carries out commands in the writer's transaction. */
public final class RecordWrites {
    private static final NoArgGenerator IDS = Generators.timeBasedEpochGenerator();

    /** What was refused after longer than this is not done again for its account. */
    private static final Duration MOST_TO_REPEAT = Duration.ofMillis(200);

    /** A designer's trial runs where others write, so it has less time. */
    private static final Duration LONGEST_TRIAL = Duration.ofSeconds(1);

    private final AnswerStorage answers;
    private final RunStorage runs;
    private final Outbox outbox;
    private final Clock clock;

    public RecordWrites(AnswerStorage answers, RunStorage runs, Outbox outbox, Clock clock) {
        this.answers = answers;
        this.runs = runs;
        this.outbox = outbox;
        this.clock = clock;
    }

    private UnitOfWork unit(
            LiveRelease live, Transaction transaction, Request request, Tracer tracer) {
        return new UnitOfWork(
                live, transaction, Origin.of(request), outbox, clock.instant(), tracer);
    }

    private UnitOfWork trialUnit(
            LiveRelease live, Transaction transaction, Request request, Tracer tracer) {
        var unit = unit(live, transaction, request, tracer);
        unit.workspace().evaluation().startClock(LONGEST_TRIAL);
        return unit;
    }

    /** Carries out a command, or gives the answer of the same one done before. */
    public Outcome run(LiveRelease live, Transaction transaction, Request request) {
        var once = request.once();
        if (once == null) {
            return carryOut(live, transaction, request);
        }
        // A user and a client may have had one name.
        var actor = request.actor().kind() + " " + request.actor().name();
        var earlier = answers.find(transaction, actor, once.key());
        if (earlier.isPresent()) {
            return again(request.actor(), once, earlier.get());
        }
        var outcome = carryOut(live, transaction, request);
        if (outcome instanceof Outcome.Success done) {
            var text = once.answer().make(transaction, done);
            answers.put(
                    transaction,
                    actor,
                    once.key(),
                    new AnswerStorage.StoredAnswer(
                            once.fingerprint(), text, request.actor().rights()),
                    clock.instant());
        }
        return outcome;
    }

    private static Outcome again(
            Actor actor, Request.Once once, AnswerStorage.StoredAnswer earlier) {
        if (!earlier.fingerprint().equals(once.fingerprint())) {
            return Outcome.Refused.because(
                    Reason.CONFLICT,
                    RecordCode.REPEATED_DIFFERENTLY,
                    "This idempotency key was used for another request; use a new key for each"
                            + " request.");
        }
        // An answer shows what its caller could see when it was given.
        return earlier.rights().isEmpty() || earlier.rights().equals(actor.rights())
                ? new Outcome.Repeated(earlier.text())
                : Outcome.Refused.because(
                        Reason.CONFLICT,
                        RecordCode.NOT_GRANTED,
                        "This request was done before. What is granted to you has changed since, so"
                                + " its answer is not given again; read the record.");
    }

    private Outcome carryOut(LiveRelease live, Transaction transaction, Request request) {
        long start = System.nanoTime();
        var outcome = carryOutAsked(live, transaction, request);
        if (request.command() instanceof RecordCommand.Call call
                && outcome instanceof Outcome.Success done) {
            runs.add(transaction, Runs.of(request, call, done, clock.instant(), start));
        }
        return outcome;
    }

    private Outcome carryOutAsked(LiveRelease live, Transaction transaction, Request request) {
        if (request.traced()) {
            return carryOutTraced(live, transaction, request);
        }
        transaction.mark();
        long start = System.nanoTime();
        var outcome = carryOut(live, transaction, request, Tracer.off());
        if (!(outcome instanceof Outcome.Refused refused) || !isWorthATrace(refused)) {
            transaction.keepSinceMark();
            return outcome;
        }
        if (System.nanoTime() - start > MOST_TO_REPEAT.toNanos()) {
            transaction.keepSinceMark();
            return shortly(request, refused);
        }
        // What was refused is done once more with an account of it: the data is the same as before,
        // so it comes to the same, and requests that go well pay nothing.
        transaction.undoToMark();
        return carryOutTraced(live, transaction, request);
    }

    /** What took long is not done once more for its account, which then has the end alone. */
    private Outcome.Refused shortly(Request request, Outcome.Refused refused) {
        var tracer = Tracer.on();
        var what = what(request.command());
        tracer.enter(TraceStep.Kind.REQUEST, what, request.via(), "");
        tracer.step(
                TraceStep.Kind.NOTE,
                "This took too long to be done again for its steps; ask for them with"
                        + " Sandpiper-Trace: on.",
                "",
                "");
        tracer.leave();
        return told(request, refused, what, tracer);
    }

    /** Nothing can be learnt from the account of a record that does not exist. */
    private static boolean isWorthATrace(Outcome.Refused refused) {
        return refused.reason() == Reason.INVALID || refused.reason() == Reason.CONFLICT;
    }

    private Outcome carryOutTraced(LiveRelease live, Transaction transaction, Request request) {
        var tracer = Tracer.on();
        var what = what(request.command());
        tracer.enter(TraceStep.Kind.REQUEST, what, request.via(), "");
        var outcome = carryOut(live, transaction, request, tracer);
        tracer.leave();
        return switch (outcome) {
            case Outcome.Success done -> {
                tracer.step(
                        TraceStep.Kind.STORED,
                        "Stored",
                        "",
                        done instanceof Outcome.Done record
                                ? "version %d".formatted(record.version())
                                : "");
                yield done.with(trace(request, what, "done", tracer));
            }
            case Outcome.Refused refused -> told(request, refused, what, tracer);
            case Outcome.Repeated repeated -> repeated;
        };
    }

    private Outcome.Refused told(
            Request request, Outcome.Refused refused, String what, Tracer tracer) {
        refused.faults()
                .forEach(fault ->
                        tracer.step(
                                TraceStep.Kind.REFUSED,
                                fault.message(),
                                String.join(
                                        ".", fault.path().stream().map(Object::toString).toList()),
                                fault.code().id()));
        return new Outcome.Refused(
                refused.reason(), refused.faults(), trace(request, what, "refused", tracer));
    }

    private Trace trace(Request request, String what, String outcome, Tracer tracer) {
        return new Trace(
                IDS.generate(),
                clock.instant(),
                request.actor().name(),
                request.via(),
                what,
                outcome,
                tracer.steps());
    }

    private static String what(RecordCommand command) {
        var object = command.object().name();
        return switch (command) {
            case RecordCommand.Create _ -> "create " + object;
            case RecordCommand.Change change -> "change %s %s".formatted(object, change.key());
            case RecordCommand.Save save ->
                    "save " + object + (save.key() == null ? "" : " " + save.key());
            case RecordCommand.Transit transit ->
                    "%s %s %s".formatted(transit.transition(), object, transit.key());
            case RecordCommand.Call call ->
                    call.key() == null
                            ? "%s.%s".formatted(object, call.function())
                            : "%s %s %s".formatted(call.function(), object, call.key());
            case RecordCommand.Remove remove -> "remove %s %s".formatted(object, remove.key());
            case RecordCommand.Restore restore -> "restore %s %s".formatted(object, restore.key());
        };
    }

    /** Finds what a command is about and puts in what is asked; null when it is to be worked on. */
    private static @Nullable Outcome prepared(CommandRun command, UnitOfWork unit) {
        try {
            return command.prepare();
        } catch (BudgetException e) {
            unit.refuse(new Fault(List.of(), RecordCode.TOO_MUCH, e.said()));
            return UnitOfWork.refusal(unit.faults());
        }
    }

    private Outcome carryOut(
            LiveRelease live, Transaction transaction, Request request, Tracer tracer) {
        var unit = unit(live, transaction, request, tracer);
        unit.workspace().evaluation().startClock();
        var command = new CommandRun(live, transaction, request, unit);
        var early = prepared(command, unit);
        if (early != null) {
            return early;
        }
        unit.work();
        var refused = unit.refusal();
        if (refused != null) {
            return command.told(refused);
        }
        var beyond = command.beyond();
        if (beyond != null) {
            return beyond;
        }
        var tooMuch = unit.stored();
        return tooMuch != null ? tooMuch : command.done();
    }

    /**
     * Carries out commands in turn up to the first that is refused; the caller undoes what was done
     * before it.
     */
    public List<Outcome> inTurn(
            LiveRelease live,
            Transaction transaction,
            List<Request> requests,
            BiConsumer<Integer, Outcome.Success> listener) {
        var outcomes = new ArrayList<Outcome>();
        for (var request : requests) {
            var outcome = carryOut(live, transaction, request, Tracer.off());
            outcomes.add(outcome);
            if (outcome instanceof Outcome.Refused) {
                break;
            }
            if (outcome instanceof Outcome.Success done) {
                listener.accept(outcomes.size() - 1, done);
            }
        }
        return outcomes;
    }

    /** Tells what a record would be after a command; the caller undoes what was done. */
    public Preview preview(
            LiveRelease live, Transaction transaction, Request request, boolean traced) {
        var tracer = traced ? Tracer.on() : Tracer.off();
        var unit = trialUnit(live, transaction, request, tracer);
        var command = new CommandRun(live, transaction, request, unit);
        var early = prepared(command, unit);
        if (early instanceof Outcome.Refused refused) {
            return new Preview(
                    new HashMap<>(), new HashMap<>(), refused.faults(), List.of(), List.of());
        }
        unit.work();
        return new Previews(unit).of(command.record(), tracer);
    }

    /**
     * Tells what calling a function would do; the caller undoes what was done.
     *
     * @param function in the place of the released one, or {@code null}
     */
    public CallTrial tryCall(
            LiveRelease live,
            Transaction transaction,
            Request request,
            @Nullable CompiledFunction function) {
        var tracer = Tracer.on();
        var unit = trialUnit(live, transaction, request, tracer);
        var command = new CommandRun(live, transaction, request, unit, function);
        if (prepared(command, unit) instanceof Outcome.Refused refused) {
            return new CallTrial(
                    null, refused.faults(), List.of(), List.of(), List.of(), List.of(), List.of());
        }
        if (!unit.isStopped()) {
            unit.work();
        }
        return new CallTrials(unit).of(command.result(), tracer);
    }

    /** Does something with a record in a unit of work that is thrown away afterwards. */
    public <T> T tryOut(
            LiveRelease live,
            Transaction transaction,
            Request request,
            Tracer tracer,
            Function<Trial, T> trial) {
        var unit = trialUnit(live, transaction, request, tracer);
        var command = new CommandRun(live, transaction, request, unit);
        var early = prepared(command, unit);
        return trial.apply(
                new Trial(
                        unit,
                        tracer,
                        early == null ? command.record() : null,
                        early instanceof Outcome.Refused refused ? refused.faults() : List.of()));
    }

    /**
     * Carries out commands as one piece of work, so that what follows from all of them is worked
     * out, and reacted to, once. Those that are not right are left out and told; each keeps its
     * place.
     */
    public List<Outcome> together(
            LiveRelease live, Transaction transaction, List<Request> requests) {
        var outcomes = new ArrayList<@Nullable Outcome>();
        requests.forEach(_ -> outcomes.add(null));
        var open = new ArrayList<Integer>();
        for (int i = 0; i < requests.size(); i++) {
            open.add(i);
        }
        while (!open.isEmpty()) {
            transaction.mark();
            boolean done = tryTogether(live, transaction, requests, open, outcomes);
            if (done) {
                transaction.keepSinceMark();
                break;
            }
            transaction.undoToMark();
            int before = open.size();
            open.removeIf(index -> outcomes.get(index) != null);
            if (open.size() == before) {
                // Nobody in particular is at fault, so each is asked alone, while there is time.
                long end = System.nanoTime() + Evaluation.LONGEST.toNanos();
                for (int index : open) {
                    outcomes.set(
                            index,
                            System.nanoTime() < end
                                    ? alone(live, transaction, requests.get(index))
                                    : tooMany());
                }
                break;
            }
        }
        return outcomes.stream().map(Objects::requireNonNull).toList();
    }

    private static Outcome tooMany() {
        return Outcome.Refused.because(
                Reason.INVALID,
                RecordCode.TOO_MUCH,
                "The rows before this one took longer than %,d milliseconds; send fewer at once."
                        .formatted(Evaluation.LONGEST.toMillis()));
    }

    private Outcome alone(LiveRelease live, Transaction transaction, Request request) {
        transaction.mark();
        var outcome = carryOut(live, transaction, request, Tracer.off());
        if (outcome instanceof Outcome.Success) {
            transaction.keepSinceMark();
        } else {
            transaction.undoToMark();
        }
        return outcome;
    }

    /** Whether all that were open were done; refusals are put in their places. */
    private boolean tryTogether(
            LiveRelease live,
            Transaction transaction,
            List<Request> requests,
            List<Integer> open,
            List<@Nullable Outcome> outcomes) {
        var unit = unit(live, transaction, requests.get(open.getFirst()), Tracer.off());
        var commands = new HashMap<Integer, CommandRun>();
        boolean refused = false;
        for (int index : open) {
            var command = new CommandRun(live, transaction, requests.get(index), unit);
            var early = prepared(command, unit);
            if (early != null) {
                outcomes.set(index, early);
                refused = true;
            }
            commands.put(index, command);
        }
        if (refused) {
            return false;
        }
        unit.work();
        if (unit.isStopped()) {
            commands.forEach((index, command) -> {
                var about = command.about();
                var faults = about == null ? unit.faults() : unit.faultsOf(about);
                if (!faults.isEmpty()) {
                    outcomes.set(index, command.told(UnitOfWork.refusal(faults)));
                }
            });
            return false;
        }
        commands.forEach((index, command) -> {
            var beyond = command.beyond();
            if (beyond != null) {
                outcomes.set(index, beyond);
            }
        });
        if (open.stream().anyMatch(index -> outcomes.get(index) != null)) {
            return false;
        }
        if (unit.stored() != null) {
            return false;
        }
        commands.forEach((index, command) -> outcomes.set(index, command.done()));
        return true;
    }
}
