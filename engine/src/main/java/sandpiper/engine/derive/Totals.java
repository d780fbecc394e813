package sandpiper.engine.derive;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.work.LogicRecord;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.ValueText;
import sandpiper.logic.value.Values;
import sandpiper.model.logic.Formula;
import sandpiper.model.logic.RunningTotal;
import sandpiper.model.logic.Watch;
import sandpiper.model.release.Field;

/**
 * Keeps totals over records elsewhere right by difference: what a record added before is taken off,
 * what it adds now is put on. A total over a hundred thousand records costs no more than one over
 * ten. Only when a highest or lowest value leaves is the store asked for the next.
 */
final class Totals {
    private final Workspace workspace;
    private final Derivation derivation;

    Totals(Workspace workspace, Derivation derivation) {
        this.workspace = workspace;
        this.derivation = derivation;
    }

    /** What a record adds to a total; {@code owner} is {@code null} when it adds to none. */
    private record Share(@Nullable RecordState owner, Object value) {
        static final Share NONE = new Share(null, Nothing.NULL);
    }

    /**
     * Whether a reading needs nothing when this record changes: its total is kept right by
     * difference, or the record adds to its totals what it added before.
     */
    boolean keeps(Watch watch, RecordState record, Derivation.Seen known) {
        var total = watch.formula().total();
        if (total != null) {
            return total.isOverItemsAt(watch.route()) && !othersChanged(total);
        }
        return !watch.shares().isEmpty()
                && watch.shares().stream()
                        .allMatch(share ->
                                !othersChanged(share) && addsTheSame(share, record, known));
    }

    private boolean addsTheSame(RunningTotal total, RecordState record, Derivation.Seen known) {
        var old = before(total, record, known);
        var now = now(total, record);
        return Objects.equals(old.owner(), now.owner()) && Values.same(old.value(), now.value());
    }

    private Share before(RunningTotal total, RecordState record, Derivation.Seen known) {
        var values = known.values();
        return values == null
                ? Share.NONE
                : share(total, new LogicRecord(workspace, record, values), values);
    }

    private Share now(RunningTotal total, RecordState record) {
        return record.isRetired()
                ? Share.NONE
                : share(total, record.logic(workspace), record.slots().values());
    }

    /** Whether something that items read on the way is being changed as well. */
    private boolean othersChanged(RunningTotal total) {
        for (var other : total.others()) {
            for (var record : workspace.touched().of(other.object())) {
                if (record.isNew()
                        || record.isRetirementChanged()
                        || record.object()
                                .fields()
                                .find(other.field())
                                .map(record.slots()::isChanged)
                                .orElse(false)) {
                    return true;
                }
            }
        }
        return false;
    }

    /** Lets every total follow what a record adds to it. */
    void follow(RecordState record, Derivation.Seen known) {
        for (var formula : workspace.logic().totalsOver(record.object())) {
            var total = Objects.requireNonNull(formula.total());
            if (formula.field().onRead() || othersChanged(total)) {
                continue;
            }
            apply(formula, total, before(total, record, known), now(total, record));
        }
    }

    private Share share(RunningTotal total, LogicRecord item, @Nullable Object[] values) {
        for (var condition : total.conditions()) {
            RecordValue on = item;
            if (!condition.prefix().isEmpty()) {
                var reached = reached(values, condition.prefix());
                if (reached == null) {
                    return Share.NONE;
                }
                on = reached.logic(workspace);
            }
            var frame = condition.code().frame(workspace.evaluation());
            frame.set(condition.slot(), on);
            if (!condition.code().holds(frame)) {
                return Share.NONE;
            }
        }
        var owner = owner(values, total.path());
        if (owner == null) {
            return Share.NONE;
        }
        var code = total.value();
        if (code == null) {
            return new Share(owner, Decimal.ONE);
        }
        var frame = code.frame(workspace.evaluation());
        frame.set(total.valueSlot(), item);
        var value = code.run(frame);
        if (value == Nothing.NULL) {
            return Share.NONE;
        }
        return new Share(owner, total.function().equals("count") ? Decimal.ONE : value);
    }

    /**
     * The record that has the total, or {@code null} when a reference on the way is empty or leads
     * to a record that is retired.
     */
    private @Nullable RecordState owner(@Nullable Object[] values, List<Field> path) {
        for (int i = 1; i < path.size(); i++) {
            var between = reached(values, path.subList(0, i));
            if (between == null || between.isRetired()) {
                return null;
            }
        }
        return reached(values, path);
    }

    /** The record that references lead to, or {@code null} when one of them is empty. */
    private @Nullable RecordState reached(@Nullable Object[] values, List<Field> path) {
        var at = values;
        RecordState record = null;
        for (var field : path) {
            var number = at[field.index()];
            if (number == null) {
                return null;
            }
            record = workspace.record(workspace.release().target(field), (Long) number);
            at = record.slots().values();
        }
        return record;
    }

    private void apply(Formula formula, RunningTotal total, Share old, Share now) {
        if (Objects.equals(old.owner(), now.owner()) && Values.same(old.value(), now.value())) {
            return;
        }
        boolean extreme = total.function().equals("min") || total.function().equals("max");
        if (old.owner() != null && old.owner().equals(now.owner()) && !extreme) {
            add(formula, old.owner(), difference(now.value(), old.value()));
            return;
        }
        if (old.owner() != null) {
            if (extreme) {
                leave(formula, old.owner(), old.value());
            } else {
                add(formula, old.owner(), difference(zeroOf(old.value()), old.value()));
            }
        }
        if (now.owner() != null) {
            if (extreme) {
                join(formula, total.function().equals("max"), now.owner(), now.value());
            } else {
                add(formula, now.owner(), now.value());
            }
        }
    }

    private static Object zeroOf(Object value) {
        return value instanceof java.time.Duration ? java.time.Duration.ZERO : Decimal.ZERO;
    }

    private static Object difference(Object now, Object old) {
        if (now instanceof Decimal a && old instanceof Decimal b) {
            return a.minus(b);
        }
        return now instanceof java.time.Duration a && old instanceof java.time.Duration b
                ? a.minus(b)
                : Nothing.NULL;
    }

    private void add(Formula formula, RecordState owner, Object more) {
        var current = current(formula, owner);
        var sum =
                current instanceof Decimal a && more instanceof Decimal b
                        ? a.plus(b)
                        : current instanceof java.time.Duration a
                                        && more instanceof java.time.Duration b
                                ? a.plus(b)
                                : Nothing.NULL;
        // What could not be stored is not what the next difference may be added to.
        if (sum == Nothing.NULL || derivation.isFaulty(owner, formula.field())) {
            derivation.markDirty(owner, formula);
        } else {
            set(formula, owner, current, sum);
        }
    }

    private Object current(Formula formula, RecordState owner) {
        var field = formula.field();
        return workspace.value(owner.object(), field, owner.slots().get(field));
    }

    private void set(Formula formula, RecordState owner, Object before, Object value) {
        if (derivation.set(owner, formula.field(), value)) {
            if (derivation.tracer().isOn()) {
                derivation
                        .tracer()
                        .step(
                                TraceStep.Kind.FORMULA,
                                "%s %s: %s"
                                        .formatted(
                                                owner.object().label(),
                                                owner.keyText(),
                                                formula.field().name()),
                                String.valueOf(formula.field().logic().formula()),
                                ValueText.of(before) + " → " + ValueText.of(value));
            }
            derivation.changed(owner);
        }
    }

    private void join(Formula formula, boolean highest, RecordState owner, Object value) {
        var current = current(formula, owner);
        var order = current == Nothing.NULL ? null : Values.order(value, current);
        if (current == Nothing.NULL || (order != null && (highest ? order > 0 : order < 0))) {
            set(formula, owner, current, value);
        }
    }

    /** A value that leaves matters only when it was the highest or lowest. */
    private void leave(Formula formula, RecordState owner, Object value) {
        if (Values.same(current(formula, owner), value)) {
            derivation.markDirty(owner, formula);
        }
    }
}
