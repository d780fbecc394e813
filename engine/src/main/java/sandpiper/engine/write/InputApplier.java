package sandpiper.engine.write;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.RecordCode;
import sandpiper.logic.Quoted;
import sandpiper.model.logic.FieldCondition;
import sandpiper.model.release.Field;
import sandpiper.model.release.Part;
import sandpiper.model.type.FieldType;

/** Puts what a request says into a record; what cannot be done becomes a fault. */
final class InputApplier {
    private final UnitOfWork unit;
    private final Workspace workspace;
    private final boolean textual;
    private final Map<String, Long> linked = new HashMap<>();

    InputApplier(UnitOfWork unit, Workspace workspace, boolean textual) {
        this.unit = unit;
        this.workspace = workspace;
        this.textual = textual;
    }

    void apply(RecordState record, RecordInput input) {
        input.faults().forEach(fault -> unit.add(record, fault));
        apply(record, null, record.slots(), input.values(), List.of());
        input.parts().forEach((part, items) -> applyItems(record, part, items));
    }

    private void apply(
            RecordState record,
            @Nullable ItemState item,
            Slots slots,
            Map<Field, Given> values,
            List<Object> at) {
        values.forEach((field, given) -> {
            if (mayBeSet(record, item, slots, field, given, at)) {
                switch (given) {
                    case Given.Value(var stored) -> slots.set(field, stored);
                    case Given.Empty _ -> slots.set(field, null);
                    case Given.Target(var key) -> link(record, slots, field, key, at);
                }
            }
        });
    }

    /** Whether somebody may give a field a value now; says so when not. */
    private boolean mayBeSet(
            RecordState record,
            @Nullable ItemState item,
            Slots slots,
            Field field,
            Given given,
            List<Object> at) {
        boolean same =
                given instanceof Given.Value(var stored)
                        && Objects.equals(stored, slots.get(field));
        if (field.isDerived()) {
            // A file that was exported and comes back has what formulas gave; it is worked out
            // anew.
            if (!textual && !same) {
                fault(
                        record,
                        at,
                        field,
                        RecordCode.NOT_WRITABLE,
                        "%s is worked out by its formula and cannot be set."
                                .formatted(field.label()));
            }
            return false;
        }
        if (item == null && record.object().isState(field) && !record.isNew() && !same) {
            fault(
                    record,
                    at,
                    field,
                    RecordCode.NOT_WRITABLE,
                    "%s is changed by transitions: %s."
                            .formatted(
                                    field.label(),
                                    String.join(
                                            ", ",
                                            workspace
                                                    .release()
                                                    .recordType(record.object())
                                                    .transitions())));
            return false;
        }
        boolean guarded =
                !same
                        && !record.isNew()
                        && item == null
                        && unit.guards().holds(FieldCondition.Kind.READ_ONLY, record, null, field);
        if (guarded) {
            fault(
                    record,
                    at,
                    field,
                    RecordCode.READ_ONLY_NOW,
                    "%s cannot be changed now, because %s."
                            .formatted(
                                    field.label(),
                                    unit.guards().readOnlyCondition(record, field).orElse("")));
        }
        return !guarded;
    }

    private void link(RecordState record, Slots slots, Field field, String key, List<Object> at) {
        var target = workspace.release().target((FieldType.Reference) field.type());
        var known = linked.get(target.name() + '\0' + key);
        if (known != null) {
            slots.set(field, known);
            return;
        }
        var found = unit.find(target, key);
        if (found.isEmpty()) {
            fault(
                    record,
                    at,
                    field,
                    RecordCode.UNKNOWN_RECORD,
                    "%s: there is no %s %s."
                            .formatted(field.label(), target.label(), Quoted.of(key)));
        } else if (found.get().retired()
                && !Long.valueOf(found.get().number()).equals(slots.before(field))) {
            fault(
                    record,
                    at,
                    field,
                    RecordCode.RETIRED_RECORD,
                    "%s: %s %s is retired and cannot be chosen."
                            .formatted(field.label(), target.label(), Quoted.of(key)));
        } else {
            linked.put(target.name() + '\0' + key, found.get().number());
            slots.set(field, found.get().number());
        }
    }

    /**
     * Items that name their line change it; when none does, they change those in the same place.
     * Others are new.
     */
    private void applyItems(RecordState record, Part part, List<RecordInput.Item> items) {
        var there = record.items(part);
        boolean byPlace = items.stream().allMatch(item -> item.line() == null);
        var result = new ArrayList<ItemState>();
        for (int i = 0; i < items.size(); i++) {
            var item = items.get(i);
            var state = byPlace ? (i < there.size() ? there.get(i) : null) : named(there, item);
            if (state == null && item.line() != null) {
                unknownLine(record, part, i, item.line());
                continue;
            }
            if (state != null && result.contains(state)) {
                unit.add(
                        record,
                        new Fault(
                                List.of(part.name(), i, "line"),
                                RecordCode.UNKNOWN_LINE,
                                "Line %d stands here twice.".formatted(state.line())));
                continue;
            }
            if (state == null) {
                state = new ItemState(record, part);
            }
            int before = state.slots().stamp();
            apply(record, state, state.slots(), item.values(), List.of(part.name(), i));
            if (state.slots().stamp() > before) {
                record.touchPart(part);
            }
            result.add(state);
        }
        record.replaceItems(part, result);
    }

    private static @Nullable ItemState named(List<ItemState> there, RecordInput.Item item) {
        return there.stream()
                .filter(one -> item.line() != null && one.line() == item.line())
                .findFirst()
                .orElse(null);
    }

    private void unknownLine(RecordState record, Part part, int at, Long line) {
        var lines = record.items(part).stream().map(one -> String.valueOf(one.line())).toList();
        unit.add(
                record,
                new Fault(
                        List.of(part.name(), at, "line"),
                        RecordCode.UNKNOWN_LINE,
                        "%s has no line %d; there is %s."
                                .formatted(
                                        part.label(),
                                        line,
                                        lines.isEmpty() ? "none yet" : String.join(", ", lines))));
    }

    private void fault(
            RecordState record, List<Object> at, Field field, RecordCode code, String message) {
        var path = new ArrayList<>(at);
        path.add(field.name());
        unit.add(record, new Fault(path, code, message));
    }
}
