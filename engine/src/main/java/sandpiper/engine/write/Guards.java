package sandpiper.engine.write;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.logic.Quoted;
import sandpiper.logic.check.Setting;
import sandpiper.logic.run.Code;
import sandpiper.logic.value.ValueText;
import sandpiper.model.logic.CompiledCheck;
import sandpiper.model.logic.FieldCondition;
import sandpiper.model.logic.Offer;
import sandpiper.model.release.Field;
import sandpiper.model.release.Part;
import sandpiper.model.release.Trigger;
import sandpiper.model.type.FieldType;

/** Looks at what must hold of a record: conditions on its fields, what references offer, checks. */
final class Guards {
    private final UnitOfWork unit;
    private final Workspace workspace;
    private final Tracer tracer;

    private final Set<Choice> judged = new HashSet<>();

    /** A record that was chosen in some place. */
    private record Choice(Slots slots, Field field, long number) {}

    Guards(UnitOfWork unit, Workspace workspace, Tracer tracer) {
        this.unit = unit;
        this.workspace = workspace;
        this.tracer = tracer;
    }

    /** Whether a condition says so of a field now. */
    boolean holds(
            FieldCondition.Kind kind, RecordState record, @Nullable ItemState item, Field field) {
        for (var condition : workspace.logic().of(record.object()).conditions()) {
            if (condition.kind() == kind && isAbout(condition, item, field)) {
                if (holds(condition.code(), record, item)) {
                    return true;
                }
            }
        }
        return false;
    }

    private boolean holds(Code code, RecordState record, @Nullable ItemState item) {
        return item == null
                ? workspace.run(code, record) == Boolean.TRUE
                : code.holds(workspace.frame(code, item));
    }

    private static boolean isAbout(
            FieldCondition condition, @Nullable ItemState item, Field field) {
        return condition.field().name().equals(field.name())
                && name(condition.part()).equals(item == null ? "" : item.part().name());
    }

    private static String name(@Nullable Part part) {
        return part == null ? "" : part.name();
    }

    /** Why a field cannot be changed now, for people; {@code null} when it can. */
    @Nullable String readOnly(RecordState record, @Nullable ItemState item, Field field) {
        for (var condition : workspace.logic().of(record.object()).conditions()) {
            if (condition.kind() == FieldCondition.Kind.READ_ONLY
                    && isAbout(condition, item, field)
                    && holds(condition.code(), record, item)) {
                var said = said(condition.say(), record, item);
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
    @Nullable String alwaysReadOnly(RecordState record, @Nullable ItemState item, Field field) {
        boolean always =
                workspace.logic().of(record.object()).conditions().stream()
                        .anyMatch(one ->
                                one.kind() == FieldCondition.Kind.READ_ONLY
                                        && one.always()
                                        && isAbout(one, item, field));
        return always ? readOnly(record, item, field) : null;
    }

    /** Why the line items of a part stay as they are now; {@code null} when they need not. */
    @Nullable String readOnly(RecordState record, Part part) {
        for (var condition : workspace.logic().of(record.object()).partConditions()) {
            if (condition.part().name().equals(part.name())
                    && workspace.run(condition.code(), record) == Boolean.TRUE) {
                var said = said(condition.say(), record, null);
                return said != null
                        ? said
                        : "%s cannot be changed now, because %s."
                                .formatted(part.label(), condition.written());
            }
        }
        return null;
    }

    /** What a definition has people told, if it says so. */
    private @Nullable String said(
            @Nullable Code say, RecordState record, @Nullable ItemState item) {
        if (say == null) {
            return null;
        }
        var frame = item == null ? workspace.frame(say, record) : workspace.frame(say, item);
        return ValueText.of(say.run(frame));
    }

    /** Looks at everything that must hold of a record. */
    void check(RecordState record) {
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
            if (condition.kind() != FieldCondition.Kind.REQUIRED) {
                continue;
            }
            var part = condition.part();
            if (part == null) {
                required(record, null, condition, List.of());
            } else {
                var items = record.items(part);
                for (int i = 0; i < items.size(); i++) {
                    required(record, items.get(i), condition, List.of(part.name(), i));
                }
            }
        }
    }

    private void required(
            RecordState record,
            @Nullable ItemState item,
            FieldCondition condition,
            List<Object> at) {
        var field = condition.field();
        var slots = item == null ? record.slots() : item.slots();
        if (slots.get(field) != null) {
            return;
        }
        if (holds(condition.code(), record, item)
                && !holds(FieldCondition.Kind.HIDDEN, record, item, field)) {
            var path = new ArrayList<>(at);
            path.add(field.name());
            var said = said(condition.say(), record, item);
            unit.add(
                    record,
                    new Fault(
                            path,
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
    void checkOffers(RecordState record) {
        for (var offer : workspace.logic().of(record.object()).offers()) {
            var part = offer.part();
            if (part == null) {
                offered(record, null, offer, List.of());
            } else {
                var items = record.items(part);
                for (int i = 0; i < items.size(); i++) {
                    offered(record, items.get(i), offer, List.of(part.name(), i));
                }
            }
        }
    }

    private void offered(
            RecordState record, @Nullable ItemState item, Offer offer, List<Object> at) {
        var field = offer.field();
        var slots = item == null ? record.slots() : item.slots();
        var number = slots.get(field);
        if (number == null || !slots.isChanged(field)) {
            return;
        }
        if (!judged.add(new Choice(slots, field, (Long) number))) {
            return;
        }
        var target = workspace.release().target((FieldType.Reference) field.type());
        var chosen = workspace.record(target, (Long) number);
        for (var demand : offer.parts()) {
            var frame =
                    item == null
                            ? workspace.frame(demand.code(), record)
                            : workspace.frame(demand.code(), item);
            frame.set(Setting.ITEM, chosen.logic(workspace));
            if (!demand.code().holds(frame)) {
                var path = new ArrayList<>(at);
                path.add(field.name());
                unit.add(
                        record,
                        new Fault(
                                path,
                                RecordCode.NOT_OFFERED,
                                notOffered(record, item, offer, chosen, demand)));
                return;
            }
        }
    }

    private String notOffered(
            RecordState record,
            @Nullable ItemState item,
            Offer offer,
            RecordState chosen,
            Offer.Demand demand) {
        var say = offer.say();
        if (say != null) {
            var frame = item == null ? workspace.frame(say, record) : workspace.frame(say, item);
            frame.set(Setting.ITEM, chosen.logic(workspace));
            return ValueText.of(say.run(frame));
        }
        return "%s: %s %s cannot be chosen here, because this does not hold: %s."
                .formatted(
                        offer.field().label(),
                        chosen.object().label(),
                        Quoted.of(workspace.written(chosen)),
                        demand.written());
    }

    private boolean isDue(RecordState record, CompiledCheck check) {
        var definition = check.definition();
        if (!definition.before().isEmpty()) {
            return unit.lifecycles().into(record).stream().anyMatch(definition.before()::contains);
        }
        if (definition.on().equals(Trigger.ALWAYS)) {
            return unit.isPrimary(record) || touchesWhat(record, check);
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
        var part = check.part();
        if (part == null) {
            check(record, null, check, List.of());
        } else {
            var items = record.items(part);
            for (int i = 0; i < items.size(); i++) {
                check(record, items.get(i), check, List.of(part.name(), i));
            }
        }
    }

    private void check(
            RecordState record, @Nullable ItemState item, CompiledCheck check, List<Object> at) {
        // What a check reads may be missing or wrong already; that was said.
        if (item == null && check.reads().stream().anyMatch(name -> unit.isFaulty(record, name))) {
            return;
        }
        var frame =
                item == null
                        ? workspace.frame(check.that(), record)
                        : workspace.frame(check.that(), item);
        if (item == null) {
            workspace.addChange(frame, record);
        }
        var holds = check.that().run(frame);
        var definition = check.definition();
        if (tracer.isOn()) {
            tracer.step(
                    TraceStep.Kind.CHECK,
                    "%s %s: %s"
                            .formatted(
                                    record.object().label(),
                                    workspace.written(record),
                                    definition.name()),
                    definition.that().text(),
                    String.valueOf(holds));
            tracer.names(check.that().names(frame));
        }
        if (holds == Boolean.TRUE) {
            return;
        }
        var say = check.say();
        var sayFrame = item == null ? workspace.frame(say, record) : workspace.frame(say, item);
        if (item == null) {
            workspace.addChange(sayFrame, record);
        }
        var message = ValueText.of(say.run(sayFrame));
        var path = new ArrayList<>(at);
        var field = definition.at();
        if (field != null) {
            path.add(field.text());
        }
        var fault = new Fault(path, RecordCode.CHECK_FAILED, message);
        if (definition.warning()) {
            unit.warn(unit.placed(record, fault));
        } else {
            unit.add(record, fault);
        }
    }
}
