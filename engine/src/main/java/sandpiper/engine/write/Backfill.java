package sandpiper.engine.write;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.port.EventStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.react.Listeners;
import sandpiper.engine.react.Surroundings;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.Origin;
import sandpiper.engine.work.WorkIds;
import sandpiper.logic.run.BudgetException;
import sandpiper.model.change.FieldChange;
import sandpiper.model.change.ObjectChange;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.logic.Formula;
import sandpiper.model.release.Part;
import sandpiper.model.route.TakenOver;

/**
 * Works out again what formulas give, and takes over what travels along routes, for all records
 * that are there, when a release changes that.
 */
public final class Backfill {
    /** Records held at once; somebody who writes waits for no more than these. */
    private static final int BATCH = 200;

    /** Values that are worked out within a release; more are left for afterwards. */
    private static final int MOST_AT_ONCE = 5_000;

    private final LiveRelease live;
    private final Transaction transaction;
    private final Actor actor;
    private final Instant now;
    private final Surroundings sinks;

    public Backfill(
            LiveRelease live,
            Transaction transaction,
            EventStorage events,
            Actor actor,
            Instant now) {
        this.sinks = new Surroundings(events, Listeners.NONE);
        this.live = live;
        this.transaction = transaction;
        this.actor = actor;
        this.now = now;
    }

    /**
     * Works out every field that is new or differs, when that is soon done.
     *
     * @return the fields that are left for afterwards: all or none, since they may read each other
     */
    public List<Backfilled> run(ReleaseChange change) {
        var fields = affected(live, change);
        long values = 0;
        for (var one : fields) {
            // Counting a large table takes long; there are no more than this.
            values += live.records().highest(transaction, one.object());
        }
        if (values > MOST_AT_ONCE) {
            return fields;
        }
        for (var one : fields) {
            long reached = 0;
            while (reached >= 0) {
                reached = some(one, reached);
            }
        }
        return List.of();
    }

    /**
     * Fields that are new or worked out otherwise, in the order in which they are worked out.
     *
     * @param next the release that comes
     */
    public static List<Backfilled> affected(LiveRelease next, ReleaseChange change) {
        boolean all = change.changesAllFormulas();
        var fields = new ArrayList<Backfilled>();
        for (var object : change.objects()) {
            var after = object.after();
            // An object that is new may have come back with its records.
            if (after == null) {
                continue;
            }
            for (var formula : next.logic().of(after).formulas()) {
                if (!formula.field().onRead() && (all || isChanged(object, formula))) {
                    fields.add(new Backfilled.OfFormula(formula));
                }
            }
        }
        for (var one : TakenOver.of(next.release())) {
            if (isNew(one, change)) {
                fields.add(new Backfilled.OfRoute(one));
            }
        }
        fields.sort(Comparator.comparingInt(Backfilled::rank));
        return fields;
    }

    private static boolean isNew(TakenOver field, ReleaseChange change) {
        return change.objects().stream()
                .filter(object -> {
                    var after = object.after();
                    return after != null && after.name().equals(field.object().name());
                })
                .flatMap(object -> fields(object, field.part()).stream())
                .filter(FieldChange::isTakenOver)
                .anyMatch(one -> {
                    var after = one.after();
                    return after != null && after.name().equals(field.field().name());
                });
    }

    private static boolean isChanged(ObjectChange object, Formula formula) {
        return fields(object, formula.part()).stream()
                .filter(FieldChange::changesFormula)
                .anyMatch(field -> {
                    var now = field.after();
                    return now != null && now.name().equals(formula.field().name());
                });
    }

    private static List<FieldChange> fields(ObjectChange object, @Nullable Part part) {
        return part == null
                ? object.fields()
                : object.parts().stream()
                        .filter(one -> {
                            var now = one.after();
                            return now != null && now.name().equals(part.name());
                        })
                        .flatMap(one -> one.fields().stream())
                        .toList();
    }

    /**
     * Works out one field for some records.
     *
     * @param after the number behind which they begin
     * @return the number of the last of them, or a number below 0 when there were none
     */
    public long some(Backfilled field, long after) {
        var object = field.object();
        var numbers = live.records().numbersAfter(transaction, object, after, BATCH);
        if (numbers.isEmpty()) {
            return -1;
        }
        run(field, numbers);
        return numbers.getLast();
    }

    private void run(Backfilled field, List<Long> numbers) {
        var zone = field.object().zone();
        var origin = new Origin(actor, "release", false, true, zone, WorkIds.next(), false, 0);
        var unit = new UnitOfWork(live, transaction, origin, sinks, now, Tracer.off());
        for (var number : numbers) {
            field.prepare(unit, unit.workspace().record(field.object(), number));
        }
        try {
            unit.derivation().run();
        } catch (BudgetException e) {
            throw new IllegalStateException(
                    "%s cannot be worked out for all records: %s"
                            .formatted(field.written(), e.said()),
                    e);
        }
        unit.store();
    }
}
