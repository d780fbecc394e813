package sandpiper.engine.write;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.check.CheckedStage;
import sandpiper.engine.check.ConstraintChecks;
import sandpiper.engine.check.IntegrityChecks;
import sandpiper.engine.check.Lifecycles;
import sandpiper.engine.check.RemovalChecks;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.derive.Derivation;
import sandpiper.engine.derive.Fills;
import sandpiper.engine.input.Defaults;
import sandpiper.engine.input.InputApplier;
import sandpiper.engine.input.InputPhase;
import sandpiper.engine.outside.OutsideWork;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.react.EventWriter;
import sandpiper.engine.react.NewRecords;
import sandpiper.engine.react.RaisedEvents;
import sandpiper.engine.react.RuleRunner;
import sandpiper.engine.react.StepContext;
import sandpiper.engine.react.Surroundings;
import sandpiper.engine.react.WithinHandlers;
import sandpiper.engine.record.StoredRecord;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.Flush;
import sandpiper.engine.work.NumberSeries;
import sandpiper.engine.work.Origin;
import sandpiper.engine.work.Reach;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.TouchedRecords;
import sandpiper.engine.work.WorkStoppedException;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.run.BudgetException;

/**
 * All that one request changes, kept back until it is known to be right.
 *
 * <p>The order is that of a write: what was asked is applied ({@link InputPhase}), empty fields get
 * their defaults, numbers and what chosen records give; formulas are worked out, here and wherever
 * else something depends on what changed ({@link Derivation}); rules react until nothing changes
 * any more ({@link RuleRunner}); then everything that must hold is looked at, all of it ({@link
 * IntegrityChecks}, {@link ConstraintChecks}); and only then is anything stored for good ({@link
 * Flush}). The phases know the records ({@link Workspace}), the faults and the tracer, and not each
 * other's order, which is said here alone. For one thread.
 */
public final class UnitOfWork {
    private final Tracer tracer;
    private final FaultLog faults = new FaultLog();
    private final Workspace workspace;
    private final Flush flush;
    private final Derivation derivation;
    private final RuleRunner rules;
    private final ConstraintChecks constraints;
    private final IntegrityChecks integrity;
    private final RemovalChecks removal;
    private final Lifecycles lifecycles;
    private final InputPhase input;
    private final Reach reach;
    private final OutsideWork outside;
    private final StepContext steps;
    private final RaisedEvents raised;
    private final WithinHandlers within;
    private final EventWriter eventWriter;

    public UnitOfWork(
            LiveRelease live,
            Transaction transaction,
            Origin origin,
            Surroundings sinks,
            Instant now,
            Tracer tracer) {
        this.tracer = tracer;
        var touched = new TouchedRecords();
        var numbers = new NumberSeries(live.records(), transaction, now);
        this.integrity = new IntegrityChecks(live.records(), transaction, touched, numbers, faults);
        this.flush = new Flush(live, transaction, origin, now);
        this.workspace =
                new Workspace(
                        live,
                        transaction,
                        now,
                        origin.actor().name(),
                        origin.zone(),
                        touched,
                        new CheckedStage(integrity, faults, flush, origin.tried()));
        this.lifecycles = new Lifecycles(workspace, faults, tracer);
        this.constraints = new ConstraintChecks(workspace, faults, lifecycles, tracer);
        this.removal = new RemovalChecks(live.records(), transaction);
        this.reach = new Reach(workspace, origin.actor());
        this.derivation = new Derivation(workspace, tracer);
        var defaults = new Defaults(now);
        var fills = new Fills(workspace, tracer);
        this.input =
                new InputPhase(
                        workspace,
                        faults,
                        new InputApplier(
                                workspace, faults, reach, constraints, lifecycles, fills, origin),
                        defaults,
                        fills,
                        numbers,
                        tracer);
        this.outside = new OutsideWork(sinks.outside(), workspace, faults, tracer);
        workspace.evaluation().rates(outside::rate);
        this.raised = new RaisedEvents(workspace, faults, tracer);
        this.steps =
                new StepContext(
                        workspace,
                        faults,
                        derivation,
                        new NewRecords(workspace, defaults, fills, numbers),
                        fills,
                        lifecycles,
                        raised,
                        removal,
                        origin.actor(),
                        outside);
        this.rules = new RuleRunner(steps, tracer, sinks.metrics());
        this.within = new WithinHandlers(steps, tracer);
        this.eventWriter =
                new EventWriter(live, sinks.events(), sinks.listeners(), transaction, origin, now);
    }

    public Workspace workspace() {
        return workspace;
    }

    Tracer tracer() {
        return tracer;
    }

    public FaultLog faults() {
        return faults;
    }

    InputPhase input() {
        return input;
    }

    public Derivation derivation() {
        return derivation;
    }

    public ConstraintChecks constraints() {
        return constraints;
    }

    RemovalChecks removal() {
        return removal;
    }

    Lifecycles lifecycles() {
        return lifecycles;
    }

    /** Which records the one who asks can choose. */
    Reach reach() {
        return reach;
    }

    /** What steps work with that are run in this work. */
    public StepContext steps() {
        return steps;
    }

    public RaisedEvents raised() {
        return raised;
    }

    public Flush flush() {
        return flush;
    }

    /** Makes a record one that was asked for. */
    void primary(RecordState record) {
        faults.primary(record);
        workspace.touch(record);
    }

    /**
     * Works out formulas and lets rules react until nothing changes, then looks at what must hold.
     */
    public void work() {
        try {
            input.tie();
            derivation.run();
            faults.primaries().forEach(constraints::checkOffers);
            // Rules are not asked about what could not even be read.
            while (!faults.isStopped() && react()) {
                derivation.run();
            }
            if (tracer.isOn()) {
                rules.tellIdle();
            }
            derivation.tell(faults);
            outside.seeCodes();
            check();
        } catch (BudgetException e) {
            refuseTooMuch(e);
        } catch (WorkStoppedException _) {
            tracer.step(TraceStep.Kind.REFUSED, "The work was stopped", "", "");
        }
    }

    /** Takes as a fault that the work needs more than it may. */
    void refuseTooMuch(BudgetException e) {
        faults.refuse(new Fault(FaultPath.WHOLE, RecordCode.TOO_MUCH, e.said()));
    }

    /** Lets rules and handlers that are part of the work react; tells whether any did. */
    private boolean react() {
        boolean ruled = rules.run();
        boolean handled = within.run();
        return ruled || handled;
    }

    private void check() {
        integrity.gathered(() -> {
            for (var record : workspace.touched().now()) {
                if (record.isChangedByHand() || faults.isPrimary(record)) {
                    integrity.check(record);
                }
            }
        });
        for (var record : workspace.touched().now()) {
            workspace.evaluation().lookAtClock();
            if (record.isChanged() || !lifecycles.taken(record).isEmpty()) {
                constraints.check(record);
            }
        }
    }

    /** Stores everything for good; only when there are no faults. */
    void store() {
        eventWriter.emitted(raised.all());
        for (var record : workspace.touched().all()) {
            workspace.evaluation().lookAtClock();
            if (record.isChanged() || record.number() < 0) {
                var done = flush.finish(record);
                if (record.isChangedByHand() || record.isNew()) {
                    eventWriter.changed(
                            record, done.version(), record.keyText(), lifecycles.taken(record));
                }
            } else if (record.isWrittenOnTheWay()) {
                // It is again what it was, but the tables have what it was in between.
                flush.push(record);
            }
        }
    }

    /**
     * Stores everything for good; a refusal when that takes more than it may, else {@code null}.
     */
    Outcome.@Nullable Refused stored() {
        try {
            store();
            return null;
        } catch (BudgetException e) {
            refuseTooMuch(e);
            return faults.refusal();
        }
    }

    /**
     * Deletes a record for good. Totals have taken leave of it before as if it were retired, and
     * everything else that follows is stored with it.
     */
    Outcome.Done delete(RecordState record, StoredRecord stored) {
        workspace.settle();
        workspace.touched().remove(record);
        store();
        var key = record.keyText();
        var done = flush.delete(record, stored);
        eventWriter.deleted(record, done.version(), key);
        return done;
    }

    /** The answer about one of the records that were asked for, after {@link #store}. */
    Outcome.Done done(RecordState record) {
        var stored = record.stored();
        long version =
                stored == null
                        ? 1
                        : record.isChangedByHand() ? stored.version() + 1 : stored.version();
        return new Outcome.Done(
                record.object(),
                record.number(),
                record.id(),
                version,
                stored == null,
                faults.warnings(),
                null,
                null);
    }
}
