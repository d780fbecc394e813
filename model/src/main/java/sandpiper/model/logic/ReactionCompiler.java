package sandpiper.model.logic;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.ProblemCode;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.check.StepChecker;
import sandpiper.logic.condition.Selections;
import sandpiper.logic.run.Compiler;
import sandpiper.logic.run.StepCode;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.LogicType;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Diagnostic;
import sandpiper.model.definition.HandlerDefinition;
import sandpiper.model.definition.LogicText;
import sandpiper.model.release.EventType;
import sandpiper.model.release.FunctionDefinition;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ScheduleDefinition;
import sandpiper.model.release.ValueType;
import sandpiper.model.type.FieldType;

/** Checks and compiles what an object does when it is called, told of an event, or due. */
final class ReactionCompiler {
    private final Release release;
    private final ObjectType object;
    private final List<Diagnostic> diagnostics;

    ReactionCompiler(Release release, ObjectType object, List<Diagnostic> diagnostics) {
        this.release = release;
        this.object = object;
        this.diagnostics = diagnostics;
    }

    CompiledFunction function(FunctionDefinition function) {
        requireTargets(function.parameters(), function.name(), function.body());
        var returns = function.returns();
        if (returns != null) {
            requireTargets(returns, function.name(), function.body());
        }
        var type = ObjectFunctionType.of(release, object, function);
        warnOfHidden(function, type);
        var checked =
                StepChecker.check(
                        function.body().text(),
                        NameContexts.ofFunction(release, object, type),
                        type);
        Reports.add(function.body(), checked.problems(), diagnostics);
        return new CompiledFunction(type, StepCode.compile(checked));
    }

    private void warnOfHidden(FunctionDefinition function, ObjectFunctionType type) {
        if (!function.onRecord()) {
            return;
        }
        var record = release.recordType(object);
        for (FunctionType.Parameter parameter : type.parameters()) {
            if (record.member(parameter.name()).isPresent()) {
                diagnostics.add(
                        Diagnostic.warning(
                                function.body().origin().file(),
                                function.body().origin().place(0, 0),
                                DefinitionCode.DUPLICATE_NAME,
                                "%s: the parameter %s has the name of a field; the field is this.%s here."
                                        .formatted(
                                                function.name(),
                                                parameter.name(),
                                                parameter.name())));
            }
        }
    }

    private void requireTargets(ValueType type, String owner, LogicText at) {
        switch (type) {
            case ValueType.Single(var field) -> {
                if (field.type() instanceof FieldType.Reference reference
                        && release.find(reference.to()).isEmpty()) {
                    error(
                            at,
                            DefinitionCode.UNKNOWN_OBJECT,
                            "%s of %s: there is no object %s."
                                    .formatted(field.name(), owner, Quoted.of(reference.to())),
                            Nearest.to(
                                            reference.to(),
                                            release.objects().stream()
                                                    .map(ObjectType::name)
                                                    .toList())
                                    .orElse(null));
                }
            }
            case ValueType.Many(var item) -> requireTargets(item, owner, at);
            case ValueType.Group group ->
                    group.entries().forEach(one -> requireTargets(one.type(), owner, at));
        }
    }

    CompiledHandler handler(HandlerDefinition handler) {
        var events = new ArrayList<EventType>();
        for (var name : handler.on()) {
            var event = release.event(name);
            if (event.isEmpty()) {
                var names = release.events().stream().map(EventType::name).toList();
                error(
                        handler.then(),
                        DefinitionCode.UNKNOWN_EVENT,
                        "%s hears %s, but there is no such event."
                                .formatted(handler.name(), Quoted.of(name)),
                        Nearest.to(name, names).orElse(null));
            } else {
                accept(handler, event.get()).ifPresent(events::add);
            }
        }
        boolean aboutRecord = NameContexts.isAboutRecord(object, handler, events);
        var setting = NameContexts.ofHandler(release, object, handler, events);
        var whenText = handler.when();
        sandpiper.logic.run.Code when = null;
        if (whenText != null) {
            var checked = Checker.condition(whenText.text(), setting);
            Reports.add(whenText, checked.problems(), diagnostics);
            when = Compiler.compile(checked);
        }
        var steps = handler.then().text();
        var then =
                handler.within()
                        ? StepChecker.checkWithin(steps, setting)
                        : StepChecker.check(steps, setting);
        Reports.add(handler.then(), then.problems(), diagnostics);
        return new CompiledHandler(
                handler, object, events, aboutRecord, when, StepCode.compile(then));
    }

    private Optional<EventType> accept(HandlerDefinition handler, EventType event) {
        var about = event.about();
        if (about != null && !about.equals(object.name())) {
            error(
                    handler.then(),
                    DefinitionCode.NOT_FOR_THIS_TYPE,
                    "%s hears %s, which is about a record of %s; it belongs with that object."
                            .formatted(handler.name(), event.name(), about),
                    null);
            return Optional.empty();
        }
        if (handler.within() && event.inherent()) {
            error(
                    handler.then(),
                    DefinitionCode.NOT_FOR_THIS_TYPE,
                    "%s: what is part of the same change as %s is said with a rule."
                            .formatted(handler.name(), event.name()),
                    null);
            return Optional.empty();
        }
        return Optional.of(event);
    }

    CompiledSchedule schedule(ScheduleDefinition schedule) {
        var where = schedule.where();
        if (where != null) {
            condition(schedule.name(), where);
        }
        var then =
                StepChecker.check(schedule.then().text(), NameContexts.of(release, object, null));
        Reports.add(schedule.then(), then.problems(), diagnostics);
        return new CompiledSchedule(schedule, object, StepCode.compile(then));
    }

    /** The records of a schedule are found by the store, so it must be able to answer. */
    private void condition(String name, LogicText where) {
        var record = release.recordType(object);
        var checked = Checker.condition(where.text(), NameContexts.of(release, object, null));
        Reports.add(where, checked.problems(), diagnostics);
        var item =
                new Term.Local(
                        NameContext.THIS, "this", new LogicType.RecordOf(record), new Span(0, 0));
        if (checked.isAccepted() && Selections.where(record, checked.term(), item).isEmpty()) {
            error(
                    where,
                    DefinitionCode.NOT_FOR_THIS_TYPE,
                    "%s: the database cannot answer this condition; move part of it into the steps, behind if."
                            .formatted(name),
                    null);
        }
    }

    private void error(
            LogicText text, ProblemCode code, String message, @Nullable String suggestion) {
        diagnostics.add(
                Diagnostic.error(
                        text.origin().file(),
                        text.origin().place(0, text.text().length()),
                        code,
                        message,
                        suggestion));
    }
}
