package sandpiper.engine.write;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.logic.Span;
import sandpiper.logic.run.Actions;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.ValueText;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ModelMember;
import sandpiper.model.release.ObjectRecordType;
import sandpiper.model.release.Part;
import sandpiper.model.type.FieldType;

/** What the steps of a rule do, inside the unit of work that the rule runs in. */
final class RuleActions implements Actions {
    private final UnitOfWork unit;
    private final Workspace workspace;
    private final Tracer tracer;
    private final RecordState subject;

    RuleActions(UnitOfWork unit, Workspace workspace, Tracer tracer, RecordState subject) {
        this.unit = unit;
        this.workspace = workspace;
        this.tracer = tracer;
        this.subject = subject;
    }

    @Override
    public void set(RecordValue record, Member member, Object value) {
        if (member instanceof ModelMember.OfField(_, var field, _, _)) {
            switch (record) {
                case LogicRecord of -> {
                    set(of.state(), of.state().slots(), field, value, List.of());
                    workspace.touch(of.state());
                }
                case LogicItem of -> {
                    var item = of.item();
                    int at = item.record().items(item.part()).indexOf(item);
                    if (set(
                            item.record(),
                            item.slots(),
                            field,
                            value,
                            List.of(item.part().name(), Math.max(0, at)))) {
                        item.record().touchPart(item.part());
                    }
                    workspace.touch(item.record());
                }
                default -> throw new IllegalStateException("No such record: " + record);
            }
        } else if (member instanceof ModelMember.OfPart(var part, _)
                && record instanceof LogicRecord of) {
            setItems(of.state(), part, value);
        }
        if (tracer.isOn()) {
            tracer.step(
                    TraceStep.Kind.SET,
                    record.written() + ": " + member.name(),
                    "",
                    ValueText.of(value));
        }
    }

    private boolean set(
            RecordState record, Slots slots, Field field, Object value, List<Object> at) {
        if (field.type() instanceof FieldType.Reference reference && value instanceof String key) {
            var target = workspace.release().target(reference);
            var found = unit.find(target, key);
            if (found.isEmpty()) {
                unit.refuse(
                        new Fault(
                                subject == record ? path(at, field) : List.of(),
                                RecordCode.UNKNOWN_RECORD,
                                "%s: there is no %s \"%s\"."
                                        .formatted(field.label(), target.label(), key)));
                return false;
            }
            return slots.set(field, found.get().number());
        }
        return unit.derivation().set(record, slots, field, value, at);
    }

    private static List<Object> path(List<Object> at, Field field) {
        var path = new ArrayList<>(at);
        path.add(field.name());
        return path;
    }

    private void setItems(RecordState record, Part part, Object value) {
        var items = new ArrayList<ItemState>();
        for (var one : value instanceof List<?> list ? list : List.of(value)) {
            if (one instanceof Context context) {
                var item = new ItemState(record, part);
                fill(record, item.slots(), part.fields(), context);
                items.add(item);
            }
        }
        record.replaceItems(part, items);
        workspace.touch(record);
    }

    private void fill(RecordState record, Slots slots, Fields fields, Context context) {
        unit.defaults(record.object(), slots);
        for (var name : context.keys()) {
            fields.find(name)
                    .ifPresent(field -> set(record, slots, field, context.get(name), List.of()));
        }
    }

    @Override
    public RecordValue create(RecordType object, Map<Member, Object> values) {
        var record = unit.create(((ObjectRecordType) object).object());
        assign(record, values);
        unit.completeNew(record);
        if (tracer.isOn()) {
            tracer.step(
                    TraceStep.Kind.CREATE,
                    object.name() + " " + workspace.written(record),
                    "",
                    shown(values));
        }
        return record.logic(workspace);
    }

    private void assign(RecordState record, Map<Member, Object> values) {
        values.forEach((member, value) -> {
            switch ((ModelMember) member) {
                case ModelMember.OfField(_, var field, _, _) ->
                        set(record, record.slots(), field, value, List.of());
                case ModelMember.OfPart(var part, _) -> setItems(record, part, value);
                default -> {
                    // nothing that can be set; the checker has said so
                }
            }
        });
    }

    private static String shown(Map<Member, Object> values) {
        var context = new LinkedHashMap<String, Object>();
        values.forEach((member, value) -> context.put(member.name(), value));
        return ValueText.of(new Context(context));
    }

    @Override
    public RecordValue addItem(RecordValue record, Member part, Map<Member, Object> values) {
        var owner = ((LogicRecord) record).state();
        var ofPart = ((ModelMember.OfPart) part).part();
        var item = new ItemState(owner, ofPart);
        unit.defaults(owner.object(), item.slots());
        values.forEach((member, value) -> {
            if (member instanceof ModelMember.OfField(_, var field, _, _)) {
                set(owner, item.slots(), field, value, List.of());
            }
        });
        unit.fills().fill(owner.object(), item.slots(), named(values));
        owner.addItem(ofPart, item);
        workspace.touch(owner);
        if (tracer.isOn()) {
            tracer.step(
                    TraceStep.Kind.CREATE,
                    record.written() + ": " + ofPart.name(),
                    "",
                    shown(values));
        }
        return item.logic(workspace);
    }

    private static List<String> named(Map<Member, Object> values) {
        return values.keySet().stream().map(Member::name).toList();
    }

    @Override
    public RecordValue save(RecordType type, Map<Member, Object> values) {
        var object = ((ObjectRecordType) type).object();
        var key = new ArrayList<Object>();
        for (var field : object.keyFields()) {
            values.forEach((member, value) -> {
                if (member.name().equals(field.name()) && value != Nothing.NULL) {
                    key.add(ValueText.of(value));
                }
            });
        }
        var found =
                key.size() == object.key().size() && key.size() == 1
                        ? unit.find(object, String.valueOf(key.getFirst()))
                        : java.util.Optional.<sandpiper.engine.port.RecordStorage.Found>empty();
        if (found.isEmpty()) {
            return create(type, values);
        }
        var record = workspace.record(object, found.get().number());
        assign(record, values);
        workspace.touch(record);
        if (tracer.isOn()) {
            tracer.step(
                    TraceStep.Kind.SET,
                    object.name() + " " + workspace.written(record),
                    "",
                    shown(values));
        }
        return record.logic(workspace);
    }

    @Override
    public void retire(RecordValue record) {
        switch (record) {
            case LogicRecord of -> {
                of.state().retire(true);
                workspace.touch(of.state());
            }
            case LogicItem of -> {
                of.item().record().removeItem(of.item());
                workspace.touch(of.item().record());
            }
            default -> throw new IllegalStateException("No such record: " + record);
        }
        tracer.step(TraceStep.Kind.RETIRE, record.written(), "", "");
    }

    @Override
    public void transition(RecordValue record, String name) {
        var state = ((LogicRecord) record).state();
        unit.lifecycles().take(state, name);
    }

    @Override
    public void reject(String message, List<String> at) {
        tracer.step(TraceStep.Kind.REFUSED, message, "", "");
        unit.refuse(fault(message, at));
    }

    @Override
    public void warn(String message, List<String> at) {
        tracer.step(TraceStep.Kind.WARNING, message, "", "");
        unit.warn(fault(message, at));
    }

    private Fault fault(String message, List<String> at) {
        return unit.about(subject, at, RecordCode.REJECTED, message);
    }

    @Override
    public void note(String message) {
        tracer.step(TraceStep.Kind.NOTE, message, "", "");
    }

    @Override
    public void decided(Span condition, Object value) {
        tracer.step(TraceStep.Kind.CONDITION, "if", "", String.valueOf(value));
    }

    @Override
    public boolean isStopped() {
        return unit.isStopped();
    }
}
