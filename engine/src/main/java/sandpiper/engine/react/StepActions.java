package sandpiper.engine.react;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.derive.Derivation;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.ItemState;
import sandpiper.engine.work.LogicItem;
import sandpiper.engine.work.LogicRecord;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Rights;
import sandpiper.engine.work.Row;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.Span;
import sandpiper.logic.run.Actions;
import sandpiper.logic.type.EventShape;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.OutsideService.OutsideFunction;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.ValueText;
import sandpiper.model.connection.OutsideCallType;
import sandpiper.model.release.Codec;
import sandpiper.model.release.Field;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ModelEvent;
import sandpiper.model.release.ModelMember;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.ObjectRecordType;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.ParsedValue;

/** What steps do, inside the unit of work that they run in. */
public final class StepActions implements Actions {
    private final StepContext context;
    private final Workspace workspace;
    private final FaultLog faults;
    private final Tracer tracer;
    private final @Nullable RecordState subject;
    private final StepRights rights;
    private final boolean isFunction;
    private boolean outdated;

    /** Steps of a rule or handler. */
    public StepActions(StepContext context, Tracer tracer, @Nullable RecordState subject) {
        this(context, tracer, subject, Rights.ALL, false);
    }

    /** Steps of a function. */
    public StepActions(
            StepContext context, Tracer tracer, @Nullable RecordState subject, Rights rights) {
        this(context, tracer, subject, rights, true);
    }

    private StepActions(
            StepContext context,
            Tracer tracer,
            @Nullable RecordState subject,
            Rights rights,
            boolean isFunction) {
        this.context = context;
        this.workspace = context.workspace();
        this.faults = context.faults();
        this.tracer = tracer;
        this.subject = subject;
        this.rights = new StepRights(context, tracer, subject, rights);
        this.isFunction = isFunction;
    }

    /**
     * A function reads totals and other formulas as they are after what it did so far. A rule reads
     * them as they were when it was set off; they follow when all rules have run.
     */
    @Override
    public void beforeStep() {
        workspace.evaluation().lookAtClock();
        if (outdated && isFunction) {
            outdated = false;
            context.derivation().run();
        }
    }

    @Override
    public void set(RecordValue record, Member member, Object value) {
        outdated = true;
        var field = fieldOf(member);
        if (field != null) {
            int language =
                    member instanceof ModelMember.OfLanguage one ? one.place() : Derivation.MAIN;
            var row = rowOf(record);
            if (!rights.mayChange(row.record(), Action.EDIT)) {
                return;
            }
            if (set(row, field, language, value)) {
                context.fills().chosen(row, field);
                if (row instanceof ItemState item) {
                    item.record().touchPart(item.part());
                }
            }
            workspace.touch(row.record());
        } else if (member instanceof ModelMember.OfPart(var part, _)
                && record instanceof LogicRecord of
                && rights.mayChange(of.state(), Action.EDIT)) {
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

    private static @Nullable Field fieldOf(Member member) {
        return switch (member) {
            case ModelMember.OfField of -> of.field();
            case ModelMember.OfLanguage language -> language.of().field();
            default -> null;
        };
    }

    private static Row rowOf(RecordValue record) {
        return switch (record) {
            case LogicRecord of -> of.state();
            case LogicItem of -> of.item();
            default -> throw new IllegalStateException("No such record: " + record);
        };
    }

    private boolean set(Row row, Field field, Object value) {
        return set(row, field, Derivation.MAIN, value);
    }

    private boolean set(Row row, Field field, int language, Object value) {
        if (field.type() instanceof FieldType.Reference reference && value instanceof String key) {
            var target = workspace.release().target(reference);
            var found = workspace.find(target, key);
            if (found.isEmpty()) {
                faults.refuse(
                        new Fault(
                                subject == row.record() ? row.path(field) : FaultPath.WHOLE,
                                RecordCode.UNKNOWN_RECORD,
                                "%s: there is no %s \"%s\"."
                                        .formatted(field.label(), target.label(), key)));
                return false;
            }
            return row.slots().set(field, found.get().number());
        }
        return context.derivation().set(row, field, language, value);
    }

    private void setItems(RecordState record, Part part, Object value) {
        var items = new ArrayList<ItemState>();
        for (var one : value instanceof List<?> list ? list : List.of(value)) {
            if (one instanceof Context values) {
                var item = new ItemState(record, part);
                fill(item, values);
                if (!record.isNew()) {
                    context.fills().fillEmpty(item);
                }
                items.add(item);
            }
        }
        record.replaceItems(part, items);
        workspace.touch(record);
    }

    private void fill(ItemState item, Context values) {
        context.newRecords().defaults(item);
        for (var name : values.keys()) {
            item.slots().fields().find(name).ifPresent(field -> set(item, field, values.get(name)));
        }
    }

    @Override
    public RecordValue create(RecordType object, Map<Member, Object> values) {
        outdated = true;
        rights.mayCreate((ObjectRecordType) object);
        var record = workspace.create(((ObjectRecordType) object).object());
        assign(record, values);
        if (!faults.isStopped()) {
            context.newRecords().complete(record);
        }
        if (tracer.isOn()) {
            tracer.step(
                    TraceStep.Kind.CREATE,
                    object.name() + " " + record.keyText(),
                    "",
                    shown(values));
        }
        return record.logic(workspace);
    }

    private void assign(RecordState record, Map<Member, Object> values) {
        values.forEach((member, value) -> {
            switch ((ModelMember) member) {
                case ModelMember.OfField(_, var field, _, _) -> set(record, field, value);
                case ModelMember.OfPart(var part, _) -> setItems(record, part, value);
                default -> {
                    // nothing that can be set; the checker has said so
                }
            }
        });
    }

    private static String shown(Map<Member, Object> values) {
        var named = new LinkedHashMap<String, Object>();
        values.forEach((member, value) -> named.put(member.name(), value));
        return ValueText.of(new Context(named));
    }

    @Override
    public RecordValue addItem(RecordValue record, Member part, Map<Member, Object> values) {
        outdated = true;
        var owner = ((LogicRecord) record).state();
        rights.mayChange(owner, Action.EDIT);
        var ofPart = ((ModelMember.OfPart) part).part();
        var item = new ItemState(owner, ofPart);
        context.newRecords().defaults(item);
        values.forEach((member, value) -> {
            if (member instanceof ModelMember.OfField(_, var field, _, _)) {
                set(item, field, value);
            }
        });
        context.fills().fill(item, named(values));
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
        var found = found(object, values);
        if (found.isEmpty()) {
            return create(type, values);
        }
        outdated = true;
        var record = workspace.record(object, found.get().number());
        if (!rights.mayChange(record, Action.EDIT)) {
            return record.logic(workspace);
        }
        assign(record, values);
        workspace.touch(record);
        if (tracer.isOn()) {
            tracer.step(
                    TraceStep.Kind.SET, object.name() + " " + record.keyText(), "", shown(values));
        }
        return record.logic(workspace);
    }

    /** The record that has the key among some values, if any. */
    private Optional<RecordStorage.Found> found(ObjectType object, Map<Member, Object> values) {
        var key = new ArrayList<@Nullable Object>();
        for (var field : object.keyFields()) {
            for (var given : values.entrySet()) {
                if (given.getKey().name().equals(field.name())
                        && given.getValue() != Nothing.NULL) {
                    stored(object, field, given.getValue()).ifPresent(key::add);
                }
            }
        }
        return key.size() == object.key().size() && !key.isEmpty()
                ? workspace.find(object, KeyText.write(object, key))
                : Optional.empty();
    }

    private static Optional<Object> stored(ObjectType object, Field field, Object value) {
        return Codec.toStored(field.type(), value, object.zone(), object.rounding())
                        instanceof ParsedValue.Taken(var stored)
                ? Optional.of(stored)
                : Optional.empty();
    }

    @Override
    public void retire(RecordValue record) {
        outdated = true;
        switch (record) {
            case LogicRecord of -> {
                if (!rights.mayChange(of.state(), Action.RETIRE)) {
                    return;
                }
                // Logic means what it says; only what must never be is refused.
                if (!of.state().isNew() && !of.state().isRetired()) {
                    var used = context.removal().whyNotRetired(of.state(), true);
                    if (used != null) {
                        used.faults().forEach(faults::refuse);
                        return;
                    }
                }
                of.state().retire(true);
                workspace.touch(of.state());
            }
            case LogicItem of -> {
                if (!rights.mayChange(of.item().record(), Action.EDIT)) {
                    return;
                }
                of.item().record().removeItem(of.item());
                workspace.touch(of.item().record());
            }
            default -> throw new IllegalStateException("No such record: " + record);
        }
        tracer.step(TraceStep.Kind.RETIRE, record.written(), "", "");
    }

    @Override
    public void transition(RecordValue record, String name) {
        outdated = true;
        var state = ((LogicRecord) record).state();
        if (rights.mayChange(state, Action.EDIT)) {
            context.lifecycles().take(state, name);
        }
    }

    @Override
    public Object call(
            RecordType object,
            FunctionType function,
            @Nullable RecordValue record,
            List<Object> arguments) {
        outdated = true;
        var result =
                new FunctionRun(context, tracer)
                        .run(
                                (ObjectFunctionType) function,
                                FunctionRun.stateOf(record),
                                arguments,
                                isFunction ? rights.granted() : Rights.ALL);
        outdated = true;
        return result;
    }

    @Override
    public Object ask(OutsideFunction function, List<Object> arguments) {
        return context.outside().call((OutsideCallType) function, arguments);
    }

    @Override
    public void emit(EventShape event, Map<String, Object> values, @Nullable RecordValue about) {
        beforeStep();
        context.raised().raise(((ModelEvent) event).type(), values, FunctionRun.stateOf(about));
    }

    @Override
    public void named(String name, Object value) {
        if (tracer.isOn()) {
            tracer.step(TraceStep.Kind.LOCAL, name, "", ValueText.literal(value));
        }
    }

    @Override
    public void reject(String message, List<String> at) {
        tracer.step(TraceStep.Kind.REFUSED, message, "", "");
        var about = subject;
        var fault = new Fault(FaultPath.of(at), RecordCode.REJECTED, message);
        if (about == null) {
            faults.refuse(fault);
        } else {
            faults.add(about, fault);
        }
    }

    @Override
    public void warn(String message, List<String> at) {
        tracer.step(TraceStep.Kind.WARNING, message, "", "");
        faults.warn(
                subject == null
                        ? new Fault(FaultPath.of(at), RecordCode.REJECTED, message)
                        : faults.about(subject, at, RecordCode.REJECTED, message));
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
        return faults.isStopped();
    }
}
