package sandpiper.engine.derive;

import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Objects;
import java.util.PriorityQueue;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.ItemState;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Row;
import sandpiper.engine.work.Slots;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.ValueText;
import sandpiper.model.logic.Formula;
import sandpiper.model.logic.Watch;
import sandpiper.model.release.Codec;
import sandpiper.model.release.Field;
import sandpiper.model.type.AskedLanguages;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.Localised;
import sandpiper.model.type.ParsedValue;
import sandpiper.model.type.TextType;

/**
 * Keeps derived fields right while records change.
 *
 * <p>A changed record first gets its own formulas worked out. Then whatever reads it from elsewhere
 * follows: totals by what the record added before and adds now ({@link Totals}), everything else by
 * going the way of the reading backwards and working out anew, formulas that others read first.
 * What changes by that is a change like any other, so the work goes on until nothing is left.
 */
public final class Derivation {
    /** The main language, with which a text in several is emptied as a whole. */
    public static final int MAIN = -1;

    private final Workspace workspace;
    private final Tracer tracer;
    private final Map<Place, Broken> faults = new LinkedHashMap<>();
    private final Totals totals;
    private final Dependents dependents;
    private final Map<RecordState, Seen> seen = new HashMap<>();
    private final Set<RecordState> pending = new LinkedHashSet<>();

    /** Those among them whose changes others do not know of. */
    private final Set<RecordState> untold = new LinkedHashSet<>();

    private final PriorityQueue<Dirty> dirty =
            new PriorityQueue<>(Comparator.comparingInt((Dirty one) -> one.formula().rank()));
    private final Set<Dirty> queued = new HashSet<>();

    /** A formula of a record that must be worked out anew. */
    private record Dirty(RecordState record, Formula formula) {}

    /** Where a value belongs that cannot be stored. */
    private record Place(Slots slots, Field field) {}

    /** Why it cannot, and of which record. */
    private record Broken(RecordState record, Fault fault) {}

    /** What of a record others know already. */
    static final class Seen {
        private @Nullable Object @Nullable [] values;
        private boolean counted;
        private int partStamp;
        private boolean workedOut;

        /** The values others know; {@code null} when they know of no such record. */
        @Nullable Object @Nullable [] values() {
            return counted ? values : null;
        }
    }

    public Derivation(Workspace workspace, Tracer tracer) {
        this.workspace = workspace;
        this.tracer = tracer;
        this.totals = new Totals(workspace, this);
        this.dependents = new Dependents(workspace);
    }

    /** What others know of a record: at first what is stored. */
    Seen seen(RecordState record) {
        return seen.computeIfAbsent(
                record,
                one -> {
                    var fresh = new Seen();
                    var stored = one.stored();
                    fresh.values = stored == null ? null : stored.values();
                    fresh.counted = stored != null && !stored.retired();
                    fresh.workedOut = stored != null;
                    return fresh;
                });
    }

    /**
     * Works out everything that follows from what was changed, in the main language of what is
     * localised, whoever asks.
     */
    public void run() {
        AskedLanguages.MAIN.in(() -> {
            workOut();
            return true;
        });
    }

    private void workOut() {
        for (var record : workspace.touched().all()) {
            var known = seen(record);
            boolean changed =
                    known.values == null
                            || known.counted == record.isRetired()
                            || known.partStamp != record.partStamp()
                            || !record.slots().differing(known.values).isEmpty()
                            || hasChangedItem(record);
            if (changed) {
                await(record);
            }
        }
        while (!pending.isEmpty() || !dirty.isEmpty()) {
            workspace.evaluation().spend(1);
            workspace.evaluation().lookAtClock();
            if (pending.isEmpty()) {
                var next = dirty.remove();
                queued.remove(next);
                recompute(next.record(), next.formula());
            } else {
                var record = pending.iterator().next();
                pending.remove(record);
                ownFormulas(record);
                untold.remove(record);
                propagate(record);
            }
        }
    }

    private void await(RecordState record) {
        pending.add(record);
        untold.add(record);
    }

    private static boolean hasChangedItem(RecordState record) {
        for (var part : record.object().parts()) {
            for (var item : record.items(part)) {
                if (item.slots().stamp() > 0) {
                    return true;
                }
            }
        }
        return false;
    }

    /** Tells what cannot be stored as things stand now; what was mended meanwhile is forgotten. */
    public void tell(FaultLog log) {
        faults.values().stream()
                .distinct()
                .forEach(broken -> log.add(broken.record(), broken.fault()));
    }

    boolean isFaulty(RecordState record, Field field) {
        return faults.containsKey(new Place(record.slots(), field));
    }

    private void ownFormulas(RecordState record) {
        var known = seen(record);
        boolean first = !known.workedOut;
        known.workedOut = true;
        if (first && record.number() >= 0) {
            tellOthersFirst();
        }
        for (var formula : workspace.logic().of(record.object()).formulas()) {
            if (!formula.field().onRead() && (!formula.watched() || first)) {
                recompute(record, formula);
            }
        }
    }

    /**
     * A total of a new record that others refer to already is counted from those that are there.
     * What is still to be told of them would count once more, so it is told before.
     */
    private void tellOthersFirst() {
        while (!untold.isEmpty()) {
            var other = untold.iterator().next();
            untold.remove(other);
            propagate(other);
        }
    }

    private void recompute(RecordState record, Formula formula) {
        boolean changed = false;
        for (var row : record.rows(formula.part())) {
            boolean rowChanged = store(row, formula, workspace.run(formula.code(), row));
            if (rowChanged && row instanceof ItemState item) {
                record.touchPart(item.part());
            }
            changed |= rowChanged;
        }
        if (changed) {
            workspace.touch(record);
            await(record);
        }
    }

    private boolean store(Row row, Formula formula, Object value) {
        var field = formula.field();
        var before = row.slots().get(field);
        if (!set(row, field, value)) {
            return false;
        }
        if (tracer.isOn()) {
            var which = row instanceof ItemState item ? item.place() + " " : "";
            tracer.step(
                    TraceStep.Kind.FORMULA,
                    "%s %s: %s%s"
                            .formatted(
                                    row.object().label(),
                                    row.record().keyText(),
                                    which,
                                    field.name()),
                    String.valueOf(field.logic().formula()),
                    shown(row, field, before) + " → " + ValueText.of(value));
        }
        return true;
    }

    private String shown(Row row, Field field, @Nullable Object stored) {
        return stored == null
                ? "empty"
                : ValueText.of(workspace.value(row.object(), field, stored));
    }

    /** Puts a value that logic came to into a field; tells whether it is another than before. */
    public boolean set(Row row, Field field, Object value) {
        return set(row, field, MAIN, value);
    }

    /**
     * Sets a localised text in one language; the others stay.
     *
     * @param language its place, or {@link #MAIN}
     */
    public boolean set(Row row, Field field, int language, Object value) {
        var slots = row.slots();
        var place = new Place(slots, field);
        if (value == Nothing.NULL) {
            faults.remove(place);
            return slots.set(field, language < 0 ? null : over(slots, field, language, null));
        }
        if (field.type() instanceof FieldType.Reference) {
            return value instanceof RecordValue target && slots.set(field, target.number());
        }
        return switch (Codec.toStored(
                field.type(), value, row.object().zone(), row.object().rounding())) {
            case ParsedValue.Taken(var stored) -> {
                faults.remove(place);
                yield slots.set(
                        field,
                        stored instanceof Localised texts && !field.isDerived()
                                ? over(slots, field, Math.max(language, 0), texts.text(0))
                                : stored);
            }
            case ParsedValue.Refused(_, var message) -> {
                faults.put(
                        place,
                        new Broken(
                                row.record(),
                                new Fault(
                                        row.path(field),
                                        RecordCode.CANNOT_BE_STORED,
                                        "%s %s.".formatted(field.label(), message))));
                yield false;
            }
        };
    }

    private static @Nullable Object over(
            Slots slots, Field field, int language, @Nullable String text) {
        var there =
                slots.get(field) instanceof Localised texts
                        ? texts
                        : new Localised(
                                Collections.nCopies(
                                        ((TextType) field.type()).languages().size(), null));
        var changed = there.with(language, text);
        return changed.isEmpty() ? null : changed;
    }

    /** Tells everything that reads a record of its changes. */
    private void propagate(RecordState record) {
        var known = seen(record);
        for (var watch : workspace.logic().watchesOf(record.object())) {
            if (isHit(watch, record, known) && !totals.keeps(watch, record, known)) {
                dependents
                        .of(watch, record, known.values)
                        .forEach(one -> markDirty(one, watch.formula()));
            }
        }
        if (known.values != null) {
            markOwn(record, known, known.values);
        }
        totals.follow(record, known);
        known.values = record.slots().copy();
        known.counted = !record.isRetired();
        known.partStamp = record.partStamp();
    }

    /**
     * A formula that reads records elsewhere may read its own as well; a new record's were all
     * worked out just now.
     */
    private void markOwn(RecordState record, Seen known, @Nullable Object[] before) {
        for (var formula : workspace.logic().of(record.object()).formulas()) {
            if (formula.watched() && !formula.field().onRead()) {
                boolean hit =
                        known.counted == record.isRetired()
                                || formula.ownFields().stream()
                                        .anyMatch(field ->
                                                !Objects.equals(
                                                        before[field.index()],
                                                        record.slots().get(field)))
                                || formula.ownParts().stream()
                                        .anyMatch(part -> record.partStamp(part) > known.partStamp);
                if (hit) {
                    markDirty(record, formula);
                }
            }
        }
    }

    private static boolean isHit(Watch watch, RecordState record, Seen known) {
        var part = watch.part();
        if (part != null) {
            return record.partStamp(part) > known.partStamp || known.values == null;
        }
        var before = known.values;
        var field = Objects.requireNonNull(watch.field());
        return before == null
                || known.counted == record.isRetired()
                || !Objects.equals(before[field.index()], record.slots().get(field));
    }

    public void markDirty(RecordState record, Formula formula) {
        var one = new Dirty(record, formula);
        if (queued.add(one)) {
            dirty.add(one);
        }
    }

    /** Notes that a total changed. */
    void changed(RecordState record) {
        workspace.touch(record);
        await(record);
    }

    Tracer tracer() {
        return tracer;
    }
}
