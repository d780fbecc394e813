package sandpiper.engine.write;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import sandpiper.engine.access.Actor;
import sandpiper.engine.port.EventStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.trace.Tracer;
import sandpiper.logic.run.BudgetException;
import sandpiper.model.change.FieldChange;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.logic.Formula;
import sandpiper.model.release.ObjectType;

/** Works out again what formulas give, for all records that are there, when formulas change. */
public final class Recomputation {
    /** Records held at once. */
    private static final int BATCH = 500;

    private final LiveRelease live;
    private final Transaction transaction;
    private final Actor actor;
    private final Instant now;
    private final Outbox outbox;

    public Recomputation(
            LiveRelease live,
            Transaction transaction,
            EventStorage events,
            Actor actor,
            Instant now) {
        this.outbox = new Outbox(events, Listeners.NONE);
        this.live = live;
        this.transaction = transaction;
        this.actor = actor;
        this.now = now;
    }

    /** Works out every formula that is new or differs. */
    public void run(ReleaseChange change) {
        var formulas = new ArrayList<Formula>();
        for (var object : change.objects()) {
            var after = object.after();
            if (after == null || object.before() == null) {
                continue;
            }
            for (var formula : live.logic().of(after).formulas()) {
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
                boolean changed =
                        fields.stream()
                                .filter(FieldChange::changesFormula)
                                .anyMatch(field -> {
                                    var now = field.after();
                                    return now != null && now.name().equals(formula.field().name());
                                });
                if (changed) {
                    formulas.add(formula);
                }
            }
        }
        formulas.sort(Comparator.comparingInt(Formula::rank));
        formulas.forEach(this::run);
    }

    /** Works out one formula for all records of its object. */
    private void run(Formula formula) {
        var object = formula.object();
        var numbers = live.records().numbers(transaction, object, null, Integer.MAX_VALUE);
        for (int from = 0; from < numbers.size(); from += BATCH) {
            run(formula, object, numbers.subList(from, Math.min(from + BATCH, numbers.size())));
        }
    }

    private void run(Formula formula, ObjectType object, List<Long> numbers) {
        var origin = new Origin(actor, "release", false, object.zone(), UnitOfWork.newId(), 0);
        var unit = new UnitOfWork(live, transaction, origin, outbox, now, Tracer.off());
        for (var number : numbers) {
            unit.derivation().markDirty(unit.load(object, number), formula);
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
