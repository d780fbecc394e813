package sandpiper.engine.check;

import java.util.HashSet;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Row;
import sandpiper.engine.work.Slots;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.Quoted;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.run.Code;
import sandpiper.logic.run.Frame;
import sandpiper.logic.value.ValueText;
import sandpiper.model.definition.Trigger;
import sandpiper.model.logic.CompiledCheck;
import sandpiper.model.logic.FieldCondition;
import sandpiper.model.logic.Offer;
import sandpiper.model.release.Field;
import sandpiper.model.release.Part;

/** Looks at what must hold of a record: conditions on its fields, what references offer, checks. */
public final class ConstraintChecks {
    private final Workspace workspace;
    private final FaultLog faults;
    private final Lifecycles lifecycles;
    private final Tracer tracer;

    private final Set<Choice> judged = new HashSet<>();

    /** A record that was chosen in some place. */
    private record Choice(Slots slots, Field field, long number) {}

    public ConstraintChecks(
            Workspace workspace, FaultLog faults, Lifecycles lifecycles, Tracer tracer) {
        this.workspace = workspace;
        this.faults = faults;
        this.lifecycles = lifecycles;
        this.tracer = tracer;
    }

    /** Whether a condition says so of a field now. */
    public boolean holds(FieldCondition.Kind kind, Row row, Field field) {
        for (var condition : workspace.logic().of(row.object()).conditions()) {
            if (condition.kind() == kind && isAbout(condition, row, field)) {
                if (holds(condition.code(), row)) {
                    return true;
                }
            }
        }
        return false;
    }

    private boolean holds(Code code, Row row) {
        return workspace.run(code, row) == Boolean.TRUE;
    }

    private static boolean isAbout(FieldCondition condition, Row row, Field field) {
        return condition.field().name().equals(field.name()) && row.isIn(condition.part());
    }

    /** Why a field cannot be changed now, for people; {@code null} when it can. */
    public @Nullable String readOnly(Row row, Field field) {
        for (var condition : workspace.logic().of(row.object()).conditions()) {
            if (condition.kind() == FieldCondition.Kind.READ_ONLY
                    && isAbout(condition, row, field)
                    && holds(condition.code(), row)) {
                var said = said(condition.say(), row);
                return said != null
                        ? said
                        : condition.always()
                                ? "%s cannot be changed.".formatted(field.label())
                                : "%s cannot be changed now, because %s."
                                        .formatted(field.label(), condition.written());
            }
        }
        return null;
    }

    /** The same of a new record or item, of which only what is always so can be said. */
    public @Nullable String alwaysReadOnly(Row row, Field field) {
        boolean always =
                workspace.logic().of(row.object()).conditions().stream()
                        .anyMatch(one ->
                                one.kind() == FieldCondition.Kind.READ_ONLY
                                        && one.always()
                                        && isAbout(one, row, field));
        return always ? readOnly(row, field) : null;
    }

    /** Why the line items of a part stay as they are now; {@code null} when they need not. */
    public @Nullable String readOnly(RecordState record, Part part) {
        for (var condition : workspace.logic().of(record.object()).partConditions()) {
            if (condition.part().name().equals(part.name()) && holds(condition.code(), record)) {
                var said = said(condition.say(), record);
                return said != null
                        ? said
                        : "%s cannot be changed now, because %s."
                                .formatted(part.label(), condition.written());
            }
        }
        return null;
    }

    /** What a definition has people told, if it says so. */
    private @Nullable String said(@Nullable Code say, Row row) {
        return say == null ? null : ValueText.of(say.run(workspace.frame(say, row)));
    }

    /** Looks at everything that must hold of a record. */
    public void check(RecordState record) {
        checkConditions(record);
        checkOffers(record);
        for (var check : workspace.logic().of(record.object()).checks()) {
            if (isDue(record, check)) {
                check(record, check);
            }
        }
    }

    private void checkConditions(RecordState record) {
        for (var condition : workspace.logic().of(record.object()).conditions()) {
            if (condition.kind() == FieldCondition.Kind.REQUIRED) {
                record.rows(condition.part()).forEach(row -> required(row, condition));
            }
        }
    }

    private void required(Row row, FieldCondition condition) {
        var field = condition.field();
        if (row.slots().get(field) == null
                && holds(condition.code(), row)
                && !holds(FieldCondition.Kind.HIDDEN, row, field)) {
            var said = said(condition.say(), row);
            faults.add(
                    row.record(),
                    new Fault(
                            row.path(field),
                            RecordCode.REQUIRED,
                            said != null
                                    ? said
                                    : "%s is required here, because %s."
                                            .formatted(field.label(), condition.written())));
        }
    }

    /**
     * Looks at what references offer. What was chosen is judged as things stand then: that a rule
     * closes a pier because of a stay does not make the stay's berth a wrong choice.
     */
    public void checkOffers(RecordState record) {
        for (var offer : workspace.logic().of(record.object()).offers()) {
            record.rows(offer.part()).forEach(row -> offered(row, offer));
        }
    }

    private void offered(Row row, Offer offer) {
        var field = offer.field();
        var slots = row.slots();
        var number = slots.get(field);
        if (number == null || !slots.isChanged(field)) {
            return;
        }
        if (!judged.add(new Choice(slots, field, (Long) number))) {
            return;
        }
        var chosen = workspace.record(workspace.release().target(field), (Long) number);
        for (var demand : offer.parts()) {
            var frame = workspace.frame(demand.code(), row);
            frame.set(NameContext.ITEM, chosen.logic(workspace));
            if (!demand.code().holds(frame)) {
                faults.add(
                        row.record(),
                        new Fault(
                                row.path(field),
                                RecordCode.NOT_OFFERED,
                                notOffered(row, offer, chosen, demand)));
                return;
            }
        }
    }

    private String notOffered(Row row, Offer offer, RecordState chosen, Offer.Demand demand) {
        var say = offer.say();
        if (say != null) {
            var frame = workspace.frame(say, row);
            frame.set(NameContext.ITEM, chosen.logic(workspace));
            return ValueText.of(say.run(frame));
        }
        return "%s: %s %s cannot be chosen here, because this does not hold: %s."
                .formatted(
                        offer.field().label(),
                        chosen.object().label(),
                        Quoted.of(chosen.keyText()),
                        demand.written());
    }

    private boolean isDue(RecordState record, CompiledCheck check) {
        var definition = check.definition();
        if (!definition.before().isEmpty()) {
            return lifecycles.into(record).stream().anyMatch(definition.before()::contains);
        }
        if (definition.on().equals(Trigger.ALWAYS)) {
            return faults.isPrimary(record) || touchesWhat(record, check);
        }
        return isSetOff(record, definition.on());
    }

    /** Whether anything changed that a check of another record than the one asked for reads. */
    private static boolean touchesWhat(RecordState record, CompiledCheck check) {
        if (record.isNew()) {
            return true;
        }
        var part = check.part();
        if (part != null) {
            return record.partStamp(part) > 0;
        }
        return record.slots().changed().stream()
                .anyMatch(field -> check.reads().contains(field.name()));
    }

    private static boolean isSetOff(RecordState record, Trigger on) {
        if (record.isNew() ? on.create() : on.change() && record.isChangedByHand()) {
            return true;
        }
        if (on.retire() && record.isRetirementChanged() && record.isRetired()) {
            return true;
        }
        for (var name : on.fields()) {
            var field = record.object().fields().find(name);
            boolean changed =
                    field.isPresent()
                            ? record.slots().isChanged(field.get())
                            : record.partStamp(record.object().part(name).orElseThrow()) > 0;
            if (changed) {
                return true;
            }
        }
        return false;
    }

    private void check(RecordState record, CompiledCheck check) {
        record.rows(check.part()).stream()
                .filter(row -> !isSaidAlready(row, check))
                .forEach(row -> check(row, check));
    }

    /** What a check reads may be missing or wrong already; that was said. */
    private boolean isSaidAlready(Row row, CompiledCheck check) {
        return faults.isStopped()
                && check.reads().stream()
                        .map(name -> row.path().then(name))
                        .anyMatch(path -> faults.isFaulty(row.record(), path));
    }

    private void check(Row row, CompiledCheck check) {
        var frame = frame(check.that(), row);
        var holds = check.that().run(frame);
        var definition = check.definition();
        if (tracer.isOn()) {
            tracer.step(
                    TraceStep.Kind.CHECK,
                    "%s %s: %s"
                            .formatted(
                                    row.object().label(),
                                    row.record().keyText(),
                                    definition.name()),
                    definition.that().text(),
                    String.valueOf(holds));
            tracer.names(check.that().names(frame));
        }
        if (holds == Boolean.TRUE) {
            return;
        }
        var message = ValueText.of(check.say().run(frame(check.say(), row)));
        var field = definition.at();
        var path = field == null ? row.path() : row.path().then(field.text());
        var fault = new Fault(path, RecordCode.CHECK_FAILED, message);
        if (definition.warning()) {
            faults.warn(faults.placed(row.record(), fault));
        } else {
            faults.add(row.record(), fault);
        }
    }

    /** A check of a record sees what it was before; one of a line item does not. */
    private Frame frame(Code code, Row row) {
        var frame = workspace.frame(code, row);
        if (row instanceof RecordState record) {
            workspace.addChange(frame, record);
        }
        return frame;
    }
}
