package sandpiper.engine.input;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.check.ConstraintChecks;
import sandpiper.engine.check.Lifecycles;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.derive.Fills;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.ItemState;
import sandpiper.engine.work.Origin;
import sandpiper.engine.work.Reach;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Row;
import sandpiper.engine.work.Slots;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.ProblemCode;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.Part;
import sandpiper.model.type.KeptFile;
import sandpiper.model.type.ValueCode;

/** Puts what a request says into a record; what cannot be done becomes a fault. */
public final class InputApplier {
    private final Workspace workspace;
    private final FaultLog faults;
    private final ConstraintChecks constraints;
    private final Lifecycles lifecycles;
    private final boolean textual;
    private final boolean whole;
    private final boolean tried;
    private final Links links;

    public InputApplier(
            Workspace workspace,
            FaultLog faults,
            Reach reach,
            ConstraintChecks constraints,
            Lifecycles lifecycles,
            Fills fills,
            Origin origin) {
        this.workspace = workspace;
        this.faults = faults;
        this.constraints = constraints;
        this.lifecycles = lifecycles;
        this.textual = origin.textual();
        this.whole = origin.whole();
        this.tried = origin.tried();
        this.links = new Links(workspace, faults, reach, fills, origin);
    }

    void apply(RecordState record, RecordInput input) {
        input.faults().forEach(fault -> faults.add(record, fault));
        var changeable = input.changeable();
        links.expect(input);
        apply(record, input.values(), FaultPath.WHOLE, changeable.paths());
        input.parts()
                .forEach((part, items) ->
                        changeable
                                .part(part.name())
                                .ifPresentOrElse(
                                        tree -> applyItems(record, part, items, tree.paths()),
                                        () -> requireSame(record, part, items)));
    }

    /**
     * {@code at} is the place of the row; a new line item stands in none yet. What is not
     * changeable of a row that is there may be named as it is.
     */
    private void apply(
            Row row, Map<Field, InputValue> values, FaultPath at, List<FieldPath> changeable) {
        values.forEach((field, given) -> {
            if (isChangeable(row, field, given, at, changeable)
                    && mayBeSet(row, field, given, at)) {
                switch (given) {
                    case InputValue.Value(var stored) -> set(row, field, stored, at);
                    case InputValue.Empty _ -> row.slots().set(field, null);
                    case InputValue.Target(var key) -> links.set(row, field, key, at);
                }
            }
        });
    }

    /**
     * A file without bytes is the one that is there: nobody gets at one of another record by it.
     */
    private void set(Row row, Field field, Object stored, FaultPath at) {
        boolean isMissing =
                stored instanceof KeptFile file
                        && file.bytes() == null
                        && !(row.slots().get(field) instanceof KeptFile there
                                && there.hasBytesOf(file));
        if (!isMissing) {
            row.slots().set(field, stored);
        } else if (tried) {
            row.slots().set(field, ((KeptFile) stored).supposed());
        } else {
            fault(
                    row,
                    at,
                    field,
                    ValueCode.BAD_FILE,
                    "%s comes without its content, and the record does not have this file; send the content in base64."
                            .formatted(field.label()));
        }
    }

    private boolean isChangeable(
            Row row, Field field, InputValue given, FaultPath at, List<FieldPath> changeable) {
        if (row.slots().isNew()
                || changeable.stream().anyMatch(path -> path.last().index() == field.index())) {
            return true;
        }
        if (!isSame(row.slots(), field, given)) {
            refuse(row, at, field, "%s cannot be changed here.".formatted(field.label()));
        }
        return false;
    }

    private void requireSame(RecordState record, Part part, List<RecordInput.Item> items) {
        if (!isSame(record, part, items)) {
            faults.add(
                    record,
                    new Fault(
                            FaultPath.of(part.name()),
                            RecordCode.NOT_WRITABLE,
                            "%s cannot be changed here.".formatted(part.label())));
        }
    }

    /** Whether somebody may give a field a value now; says so when not. */
    private boolean mayBeSet(Row row, Field field, InputValue given, FaultPath at) {
        boolean same = isSame(row.slots(), field, given);
        if (field.isDerived()) {
            // A file that was exported and comes back has what formulas gave; it is worked out
            // anew.
            if (!textual && !same) {
                refuse(
                        row,
                        at,
                        field,
                        "%s is worked out by its formula and cannot be set."
                                .formatted(field.label()));
            }
            return false;
        }
        if (same) {
            return true;
        }
        if (row instanceof RecordState record && record.object().isState(field)) {
            return mayHaveState(record, field, given, at);
        }
        if (field.readOnly() && !whole) {
            refuse(
                    row,
                    at,
                    field,
                    "%s is set by the service alone and cannot be given.".formatted(field.label()));
            return false;
        }
        var fixed = whyFixed(row, field);
        if (fixed != null) {
            fault(row, at, field, RecordCode.READ_ONLY_NOW, fixed);
        }
        return fixed == null;
    }

    private @Nullable String whyFixed(Row row, Field field) {
        if (!row.slots().isNew()) {
            return constraints.readOnly(row, field);
        }
        return whole ? null : constraints.alwaysReadOnly(row, field);
    }

    /** Whether a field would stay as it is. */
    private boolean isSame(Slots slots, Field field, InputValue given) {
        return switch (given) {
            case InputValue.Value(var stored) -> Objects.equals(stored, slots.get(field));
            case InputValue.Empty _ -> slots.get(field) == null;
            case InputValue.Target(var key) ->
                    slots.get(field) instanceof Long number
                            && workspace
                                    .find(workspace.release().target(field), key)
                                    .filter(found -> found.number() == number)
                                    .isPresent();
        };
    }

    /** A state comes by transitions; only data from elsewhere brings one along. */
    private boolean mayHaveState(RecordState record, Field field, InputValue given, FaultPath at) {
        var lifecycle = Objects.requireNonNull(record.object().lifecycle());
        if (!record.isNew()) {
            refuse(
                    record,
                    at,
                    field,
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
        boolean first =
                given instanceof InputValue.Empty
                        || (given instanceof InputValue.Value(var state)
                                && lifecycle.initial().equals(state));
        if (!first && !whole) {
            refuse(
                    record,
                    at,
                    field,
                    "%s of a new %s is %s; it is changed by transitions."
                            .formatted(
                                    field.label(), record.object().label(), lifecycle.initial()));
            return false;
        }
        if (!first) {
            lifecycles.enter(record);
        }
        return true;
    }

    private void refuse(Row row, FaultPath at, Field field, String message) {
        fault(row, at, field, RecordCode.NOT_WRITABLE, message);
    }

    /** Ties references to records that this work makes; what is in none of them is told. */
    void tie() {
        links.tie();
    }

    /**
     * Items that name their line change it; when none does, they change those in the same place.
     * Others are new.
     */
    private void applyItems(
            RecordState record,
            Part part,
            List<RecordInput.Item> items,
            List<FieldPath> changeable) {
        var there = record.items(part);
        if (!record.isNew() && isFixed(record, part, items)) {
            return;
        }
        boolean byPlace = items.stream().allMatch(item -> item.line() == null);
        var result = new ArrayList<ItemState>();
        for (int i = 0; i < items.size(); i++) {
            var item = items.get(i);
            var state = byPlace ? (i < there.size() ? there.get(i) : null) : named(there, item);
            var line = item.line();
            if (state == null && line != null && !(textual && record.isNew()) && !whole) {
                unknownLine(record, part, i, line);
                continue;
            }
            if (state == null
                    && line != null
                    && result.stream().anyMatch(one -> one.line() == line)) {
                twice(record, part, i, line);
                continue;
            }
            if (state != null && result.contains(state)) {
                twice(record, part, i, state.line());
                continue;
            }
            if (state == null) {
                // Data that comes back keeps the numbers of its lines.
                state =
                        line == null
                                ? new ItemState(record, part)
                                : new ItemState(record, part, line, new Slots(part.fields()));
            }
            int before = state.slots().stamp();
            apply(state, item.values(), FaultPath.of(part.name()).then(i), changeable);
            if (state.slots().stamp() > before) {
                record.touchPart(part);
            }
            result.add(state);
        }
        record.replaceItems(part, result);
    }

    /** Whether line items must stay as they are and would not; says so. */
    private boolean isFixed(RecordState record, Part part, List<RecordInput.Item> items) {
        var reason = constraints.readOnly(record, part);
        if (reason == null || isSame(record, part, items)) {
            return false;
        }
        faults.add(record, new Fault(FaultPath.of(part.name()), RecordCode.READ_ONLY_NOW, reason));
        return true;
    }

    private boolean isSame(RecordState record, Part part, List<RecordInput.Item> items) {
        var there = record.items(part);
        if (items.size() != there.size()) {
            return false;
        }
        for (int i = 0; i < items.size(); i++) {
            var item = items.get(i);
            var state = there.get(i);
            boolean other = item.line() != null && item.line() != state.line();
            boolean differs =
                    item.values().entrySet().stream()
                            .anyMatch(one ->
                                    !one.getKey().isDerived()
                                            && !isSame(
                                                    state.slots(), one.getKey(), one.getValue()));
            if (other || differs) {
                return false;
            }
        }
        return true;
    }

    private static @Nullable ItemState named(List<ItemState> there, RecordInput.Item item) {
        return there.stream()
                .filter(one -> item.line() != null && one.line() == item.line())
                .findFirst()
                .orElse(null);
    }

    private void twice(RecordState record, Part part, int at, long line) {
        faults.add(
                record,
                new Fault(
                        FaultPath.of(part.name()).then(at).then("line"),
                        RecordCode.UNKNOWN_LINE,
                        "Line %d stands here twice.".formatted(line)));
    }

    private void unknownLine(RecordState record, Part part, int at, Long line) {
        var lines = record.items(part).stream().map(one -> String.valueOf(one.line())).toList();
        faults.add(
                record,
                new Fault(
                        FaultPath.of(part.name()).then(at).then("line"),
                        RecordCode.UNKNOWN_LINE,
                        "%s has no line %d; there is %s."
                                .formatted(
                                        part.label(),
                                        line,
                                        lines.isEmpty() ? "none yet" : String.join(", ", lines))));
    }

    private void fault(Row row, FaultPath at, Field field, ProblemCode code, String message) {
        faults.add(row.record(), new Fault(at.then(field.name()), code, message));
    }
}
