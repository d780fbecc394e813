package sandpiper.engine.write;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import sandpiper.engine.access.Actor;
import sandpiper.engine.port.EventStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.react.EventSinks;
import sandpiper.engine.react.Listeners;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.Origin;
import sandpiper.engine.work.WorkIds;
import sandpiper.logic.run.BudgetException;
import sandpiper.model.change.FieldChange;
import sandpiper.model.change.ObjectChange;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.logic.Formula;
import sandpiper.model.logic.ReleaseLogic;
import sandpiper.model.release.ObjectType;

/** Works out again what formulas give, for all records that are there, when formulas change. */
public final class FormulaBackfill {
    /** Records held at once; somebody who writes waits for no more than these. */
    private static final int BATCH = 200;

    /** Values that are worked out within a release; more are left for afterwards. */
    private static final int MOST_AT_ONCE = 5_000;

    private final LiveRelease live;
    private final Transaction transaction;
    private final Actor actor;
    private final Instant now;
    private final EventSinks sinks;

    public FormulaBackfill(
            LiveRelease live,
            Transaction transaction,
            EventStorage events,
            Actor actor,
            Instant now) {
        this.sinks = new EventSinks(events, Listeners.NONE);
        this.live = live;
        this.transaction = transaction;
        this.actor = actor;
        this.now = now;
    }

    /**
     * Works out every formula that is new or differs, when that is soon done.
     *
     * @return the formulas that are left for afterwards: all or none, since they may read each
     *     other
     */
    public List<Formula> run(ReleaseChange change) {
        var formulas = affected(live.logic(), change);
        long values = 0;
        for (var formula : formulas) {
            // Counting a large table takes long; there are no more than this.
            values += live.records().highest(transaction, formula.object());
        }
        if (values > MOST_AT_ONCE) {
            return formulas;
        }
        for (var formula : formulas) {
            long reached = 0;
            while (reached >= 0) {
                reached = some(formula, reached);
            }
        }
        return List.of();
    }

    /**
     * Formulas that are new or differ, in the order in which they are worked out.
     *
     * @param logic of the release that comes
     */
    public static List<Formula> affected(ReleaseLogic logic, ReleaseChange change) {
        boolean all = change.changesAllFormulas();
        var formulas = new ArrayList<Formula>();
        for (var object : change.objects()) {
            var after = object.after();
            // An object that is new may have come back with its records.
            if (after == null) {
                continue;
            }
            for (var formula : logic.of(after).formulas()) {
                if (!formula.field().onRead() && (all || isChanged(object, formula))) {
                    formulas.add(formula);
                }
            }
        }
        formulas.sort(Comparator.comparingInt(Formula::rank));
        return formulas;
    }

    private static boolean isChanged(ObjectChange object, Formula formula) {
        var part = formula.part();
        var fields =
                part == null
                        ? object.fields()
                        : object.parts().stream()
                                .filter(one -> {
                                    var now = one.after();
                                    return now != null && now.name().equals(part.name());
                                })
                                .flatMap(one -> one.fields().stream())
                                .toList();
        return fields.stream()
                .filter(FieldChange::changesFormula)
                .anyMatch(field -> {
                    var now = field.after();
                    return now != null && now.name().equals(formula.field().name());
                });
    }

    /**
     * Works out one formula for some records.
     *
     * @param after the number behind which they begin
     * @return the number of the last of them, or a number below 0 when there were none
     */
    public long some(Formula formula, long after) {
        var object = formula.object();
        var numbers = live.records().numbersAfter(transaction, object, after, BATCH);
        if (numbers.isEmpty()) {
            return -1;
        }
        run(formula, object, numbers);
        return numbers.getLast();
    }

    private void run(Formula formula, ObjectType object, List<Long> numbers) {
        var origin = new Origin(actor, "release", false, true, object.zone(), WorkIds.next(), 0);
        var unit = new UnitOfWork(live, transaction, origin, sinks, now, Tracer.off());
        for (var number : numbers) {
            unit.derivation().markDirty(unit.workspace().record(object, number), formula);
        }
        try {
            unit.derivation().run();
        } catch (BudgetException e) {
            throw new IllegalStateException(
                    "The formula of %s cannot be worked out for all records: %s"
                            .formatted(formula.written(), e.said()),
                    e);
        }
        unit.store();
    }
}
