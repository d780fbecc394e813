package sandpiper.engine.write;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Outcome.Reason;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.event.Event;
import sandpiper.engine.port.RunStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.react.EventValues;
import sandpiper.engine.react.HandlerRun;
import sandpiper.engine.react.Surroundings;
import sandpiper.engine.read.RecordFinder;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.Trace;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.Origin;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.WorkIds;
import sandpiper.engine.work.WorkStoppedException;
import sandpiper.logic.run.BudgetException;
import sandpiper.model.logic.CompiledHandler;
import sandpiper.model.logic.CompiledSchedule;
import sandpiper.model.release.ObjectType;

/**
 * Runs handlers and schedules in the writer's transaction, each as a piece of work of its own: all
 * of it is done or nothing.
 */
public final class ReactionWrites {
    /** Events that may lead to each other by handlers, so that none go on for ever. */
    private static final int DEEPEST = 10;

    private final Surroundings sinks;
    private final RunStorage runs;
    private final Clock clock;

    public ReactionWrites(Surroundings sinks, RunStorage runs, Clock clock) {
        this.sinks = sinks;
        this.runs = runs;
        this.clock = clock;
    }

    /** What the steps do in a unit of work. */
    @FunctionalInterface
    private interface Steps {
        void run(UnitOfWork unit, @Nullable RecordState record, Tracer tracer);
    }

    /**
     * Runs a handler for an event, or for all events of one change when it takes them together.
     *
     * @return done, or refused with the account of it and everything undone
     */
    public Outcome handle(
            LiveRelease live,
            Transaction transaction,
            CompiledHandler handler,
            List<Event> events) {
        var first = events.getFirst();
        var told = first.name();
        return run(
                live,
                transaction,
                new What("handler", handler.name(), handler.object(), told),
                first,
                handler.aboutRecord(),
                (unit, record, tracer) -> {
                    var values =
                            new EventValues(handler.object().zone(), unit.workspace()::referenced);
                    var heard =
                            events.stream()
                                    .<Object>map(event ->
                                            values.of(
                                                    live.release()
                                                            .event(event.name())
                                                            .orElseThrow(),
                                                    event))
                                    .toList();
                    new HandlerRun(unit.steps())
                            .run(
                                    handler,
                                    record,
                                    handler.definition().batch() ? heard : heard.getFirst(),
                                    TraceStep.Kind.RULE,
                                    tracer);
                });
    }

    /** Runs a schedule for the record whose time has come. */
    public Outcome due(
            LiveRelease live, Transaction transaction, CompiledSchedule schedule, Event event) {
        return run(
                live,
                transaction,
                new What("schedule", schedule.name(), schedule.object(), "schedule"),
                event,
                true,
                (unit, record, tracer) -> {
                    if (record != null) {
                        new HandlerRun(unit.steps()).run(schedule, record, tracer);
                    }
                });
    }

    /** What is run, for the account and the log. */
    private record What(String kind, String name, ObjectType object, String via) {}

    private Outcome run(
            LiveRelease live,
            Transaction transaction,
            What what,
            Event event,
            boolean aboutRecord,
            Steps steps) {
        if (event.depth() >= DEEPEST) {
            return Outcome.Refused.because(
                    Reason.CONFLICT,
                    RecordCode.EVENT_LOOP,
                    "%d events have led to each other by handlers; this one is not handled any more."
                            .formatted(DEEPEST));
        }
        long start = System.nanoTime();
        transaction.mark();
        var outcome = attempt(live, transaction, what, event, aboutRecord, steps, Tracer.off());
        if (outcome instanceof Outcome.Refused) {
            // Once more with an account, as with any request that is refused.
            transaction.undoToMark();
            transaction.mark();
            var tracer = Tracer.on();
            tracer.enter(TraceStep.Kind.REQUEST, what.name(), event.name(), "");
            var again = attempt(live, transaction, what, event, aboutRecord, steps, tracer);
            transaction.undoToMark();
            outcome = traced(what, again, tracer);
        } else {
            transaction.keepSinceMark();
        }
        runs.add(transaction, log(what, event, outcome, start));
        return outcome;
    }

    private Outcome traced(What what, Outcome outcome, Tracer tracer) {
        if (!(outcome instanceof Outcome.Refused refused)) {
            return Outcome.Refused.because(
                    Reason.CONFLICT, RecordCode.TOO_MUCH, "It took too long the first time.");
        }
        refused.faults()
                .forEach(fault ->
                        tracer.step(
                                TraceStep.Kind.REFUSED, fault.message(), "", fault.code().id()));
        return new Outcome.Refused(
                refused.reason(),
                refused.faults(),
                new Trace(
                        WorkIds.next(),
                        clock.instant(),
                        actor(what).name(),
                        what.via(),
                        "%s %s".formatted(what.kind(), what.name()),
                        "refused",
                        tracer.steps()));
    }

    private RunStorage.Run log(What what, Event event, Outcome outcome, long start) {
        var key = event.key();
        var refused = outcome instanceof Outcome.Refused one ? one : null;
        return new RunStorage.Run(
                clock.instant(),
                what.kind(),
                what.name(),
                what.object().name(),
                key == null ? "" : key,
                refused == null,
                refused == null ? "" : Runs.said(refused),
                (System.nanoTime() - start) / 1_000,
                actor(what).name(),
                what.via(),
                refused == null || refused.trace() == null ? null : refused.trace().id());
    }

    private static Actor actor(What what) {
        return new Actor(
                Actor.Kind.SYSTEM,
                what.kind() + " " + what.name(),
                Set.of(Duty.values()),
                List.of());
    }

    private Outcome attempt(
            LiveRelease live,
            Transaction transaction,
            What what,
            Event event,
            boolean aboutRecord,
            Steps steps,
            Tracer tracer) {
        var origin =
                new Origin(
                        actor(what),
                        what.via(),
                        false,
                        false,
                        what.object().zone(),
                        WorkIds.next(),
                        false,
                        event.depth() + 1);
        var unit = new UnitOfWork(live, transaction, origin, sinks, clock.instant(), tracer);
        RecordState record = null;
        if (aboutRecord) {
            var found = find(live, transaction, what.object(), event);
            if (found.isEmpty()) {
                // It is gone for good, so there is nothing left to do for it.
                return new Outcome.Returned(what.object(), List.of(), null, null);
            }
            record = unit.workspace().record(what.object(), found.get());
            unit.primary(record);
        }
        try {
            steps.run(unit, record, tracer);
        } catch (BudgetException e) {
            unit.refuseTooMuch(e);
        } catch (WorkStoppedException _) {
            // what stopped it is among the faults
        }
        if (!unit.faults().isStopped()) {
            unit.work();
        }
        var refusal = unit.faults().refusal();
        if (refusal != null) {
            return refusal;
        }
        var tooMuch = unit.stored();
        return tooMuch != null
                ? tooMuch
                : new Outcome.Returned(what.object(), unit.faults().warnings(), null, null);
    }

    private static Optional<Long> find(
            LiveRelease live, Transaction transaction, ObjectType object, Event event) {
        var id = event.record();
        return id == null
                ? Optional.empty()
                : RecordFinder.find(live.records(), transaction, object, id.toString())
                        .map(found -> found.number());
    }
}
