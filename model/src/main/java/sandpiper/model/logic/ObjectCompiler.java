package sandpiper.model.logic;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.ProblemCode;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;
import sandpiper.logic.check.CheckedTerm;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.check.StepChecker;
import sandpiper.logic.condition.Selections;
import sandpiper.logic.run.Code;
import sandpiper.logic.run.Compiler;
import sandpiper.logic.run.StepCode;
import sandpiper.logic.term.Term;
import sandpiper.logic.term.Terms;
import sandpiper.logic.type.LogicType;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Diagnostic;
import sandpiper.model.definition.CheckDefinition;
import sandpiper.model.definition.Lifecycle;
import sandpiper.model.definition.LogicText;
import sandpiper.model.definition.RuleDefinition;
import sandpiper.model.definition.Trigger;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.NumberType;

/** Checks and compiles the logic of one object, all but its formulas. */
final class ObjectCompiler {
    private final Release release;
    private final ObjectType object;
    private final List<Diagnostic> diagnostics;
    private final Set<String> onRead;
    private final List<FieldCondition> conditions = new ArrayList<>();
    private final List<Offer> offers = new ArrayList<>();

    ObjectCompiler(
            Release release, ObjectType object, List<Diagnostic> diagnostics, Set<String> onRead) {
        this.release = release;
        this.object = object;
        this.diagnostics = diagnostics;
        this.onRead = onRead;
    }

    /** Logic without formulas yet. */
    record WithoutFormulas(
            ObjectType object,
            List<CompiledCheck> checks,
            List<CompiledRule> rules,
            List<FieldCondition> conditions,
            List<PartCondition> partConditions,
            List<Offer> offers,
            List<CompiledFunction> functions,
            List<CompiledHandler> handlers,
            List<CompiledSchedule> schedules) {
        ObjectLogic with(List<Formula> formulas) {
            return new ObjectLogic(
                    object,
                    formulas,
                    checks,
                    rules,
                    conditions,
                    partConditions,
                    offers,
                    functions,
                    handlers,
                    schedules);
        }
    }

    WithoutFormulas compile() {
        fields(null, object.fields());
        object.parts().forEach(part -> fields(part, part.fields()));
        var checks = new ArrayList<CompiledCheck>();
        object.checks().forEach(check -> checks.add(check(check, null)));
        object.parts()
                .forEach(part -> part.checks().forEach(check -> checks.add(check(check, part))));
        var rules = object.rules().stream().map(this::rule).toList();
        var reactions = new ReactionCompiler(release, object, diagnostics);
        return new WithoutFormulas(
                object,
                checks,
                rules,
                conditions,
                object.parts().stream().map(this::partCondition).filter(Objects::nonNull).toList(),
                offers,
                object.functions().stream().map(reactions::function).toList(),
                object.handlers().stream().map(reactions::handler).toList(),
                object.schedules().stream().map(reactions::schedule).toList());
    }

    private void fields(@Nullable Part part, Fields fields) {
        for (var field : fields) {
            var logic = field.logic();
            condition(
                    FieldCondition.Kind.REQUIRED,
                    part,
                    field,
                    logic.requiredWhen(),
                    logic.requiredSay());
            condition(
                    FieldCondition.Kind.READ_ONLY,
                    part,
                    field,
                    logic.readOnlyWhen(),
                    logic.readOnlySay());
            condition(FieldCondition.Kind.HIDDEN, part, field, logic.hiddenWhen(), null);
            var target =
                    field.type() instanceof FieldType.Reference reference
                            ? release.find(reference.to()).orElse(null)
                            : null;
            if (target != null) {
                offer(part, field, target, logic.offer(), logic.offerSay());
                fill(fields, field, target);
            }
        }
    }

    private void condition(
            FieldCondition.Kind kind,
            @Nullable Part part,
            Field field,
            @Nullable LogicText text,
            @Nullable LogicText say) {
        if (text != null) {
            var setting = NameContexts.of(release, object, part);
            var checked = Checker.condition(text.text(), setting);
            Reports.add(text, checked.problems(), diagnostics);
            conditions.add(
                    new FieldCondition(
                            kind,
                            part,
                            field,
                            text.text(),
                            Compiler.compile(checked),
                            say(say, setting),
                            checked.term() instanceof Term.Constant constant
                                    && constant.value() == Boolean.TRUE));
        }
    }

    private @Nullable PartCondition partCondition(Part part) {
        var text = part.readOnlyWhen();
        if (text == null) {
            return null;
        }
        var setting = NameContexts.of(release, object, null);
        var checked = Checker.condition(text.text(), setting);
        Reports.add(text, checked.problems(), diagnostics);
        return new PartCondition(
                part, text.text(), Compiler.compile(checked), say(part.readOnlySay(), setting));
    }

    /** What people are told, compiled; {@code null} when nothing of its own is said. */
    private @Nullable Code say(@Nullable LogicText text, NameContext setting) {
        if (text == null) {
            return null;
        }
        var checked = Checker.template(text.text(), setting);
        Reports.add(text, checked.problems(), diagnostics);
        return Compiler.compile(checked);
    }

    private void offer(
            @Nullable Part part,
            Field field,
            ObjectType target,
            @Nullable LogicText text,
            @Nullable LogicText say) {
        if (text == null) {
            return;
        }
        var setting = NameContexts.ofOffer(release, object, part, target);
        var checked = Checker.condition(text.text(), setting);
        Reports.add(text, checked.problems(), diagnostics);
        var item =
                new Term.Local(
                        NameContext.ITEM,
                        "item",
                        new LogicType.RecordOf(release.recordType(target)),
                        new Span(0, 0));
        var selections =
                Selections.where(release.recordType(target), checked.term(), item).orElse(null);
        var demands =
                (checked.term() instanceof Term.Logical(boolean isAnd, var parts, _) && isAnd
                                ? parts.stream()
                                : Stream.of(checked.term()))
                        .map(one ->
                                new Offer.Demand(
                                        slice(text.text(), one.span()),
                                        Compiler.compile(one, checked.slots())))
                        .toList();
        offers.add(
                new Offer(
                        part,
                        field,
                        demands,
                        selections,
                        selections == null
                                ? List.of()
                                : selections.values().stream()
                                        .map(one -> Compiler.compile(one, checked.slots()))
                                        .toList(),
                        say(say, setting)));
    }

    private static String slice(String text, Span span) {
        int end = Math.min(span.end(), text.codePointCount(0, text.length()));
        return text.substring(
                text.offsetByCodePoints(0, Math.min(span.start(), end)),
                text.offsetByCodePoints(0, end));
    }

    private void fill(Fields here, Field reference, ObjectType target) {
        reference
                .logic()
                .fill()
                .forEach((to, from) -> {
                    var into = here.find(to);
                    var source = target.fields().find(from.text());
                    if (into.isEmpty()) {
                        at(
                                from,
                                DefinitionCode.UNKNOWN_FIELD,
                                "fill: there is no field %s here.".formatted(Quoted.of(to)),
                                null);
                    } else if (source.isEmpty()) {
                        at(
                                from,
                                DefinitionCode.UNKNOWN_FIELD,
                                "fill: %s has no field %s."
                                        .formatted(target.name(), Quoted.of(from.text())),
                                Nearest.to(from.text(), target.fields().names()).orElse(null));
                    } else if (into.get().isDerived() || !isAlike(into.get(), source.get())) {
                        at(
                                from,
                                DefinitionCode.NOT_FOR_THIS_TYPE,
                                "fill: %s cannot get its value from %s of %s."
                                        .formatted(to, from.text(), target.name()),
                                null);
                    }
                });
    }

    /** Whether a value of one field can be a value of the other as it is stored. */
    private static boolean isAlike(Field into, Field from) {
        if (into.type() instanceof NumberType to && from.type() instanceof NumberType of) {
            return to.scale() == of.scale()
                    && java.util.Objects.equals(to.currency(), of.currency());
        }
        return into.type().keyword() == from.type().keyword();
    }

    private CompiledCheck check(CheckDefinition check, @Nullable Part part) {
        var setting =
                part == null
                        ? NameContexts.ofChange(release, object)
                        : NameContexts.of(release, object, part);
        var that = Checker.check(check.that().text(), setting, true);
        Reports.add(check.that(), that.problems(), diagnostics);
        var say = Checker.template(check.say().text(), setting);
        Reports.add(check.say(), say.problems(), diagnostics);
        var fields = part == null ? object.fields() : part.fields();
        var at = check.at();
        if (at != null && fields.find(at.text()).isEmpty() && object.part(at.text()).isEmpty()) {
            at(
                    at,
                    DefinitionCode.UNKNOWN_FIELD,
                    "at: there is no field %s.".formatted(Quoted.of(at.text())),
                    Nearest.to(at.text(), fields.names()).orElse(null));
        }
        var lifecycle = object.lifecycle();
        for (var transition : check.before()) {
            if (lifecycle == null || lifecycle.find(transition).isEmpty()) {
                within(
                        Objects.requireNonNullElse(check.beforeText(), check.that()),
                        transition,
                        DefinitionCode.WRONG_VALUE,
                        "before: %s has no transition %s."
                                .formatted(object.name(), Quoted.of(transition)),
                        lifecycle == null
                                ? null
                                : Nearest.to(
                                                transition,
                                                lifecycle.transitions().stream()
                                                        .map(Lifecycle.Transition::name)
                                                        .toList())
                                        .orElse(null));
            }
        }
        trigger(check.on(), check.that());
        return new CompiledCheck(
                check, part, that, Compiler.compile(that), Compiler.compile(say), reads(that));
    }

    private void at(LogicText text, ProblemCode code, String message, @Nullable String suggestion) {
        diagnostics.add(
                Diagnostic.error(
                        text.origin().file(),
                        text.origin().place(0, text.text().length()),
                        code,
                        message,
                        suggestion));
    }

    private static Set<String> reads(CheckedTerm checked) {
        var names = new HashSet<String>();
        Terms.walk(
                checked.term(),
                term -> {
                    if (term instanceof Term.Read(Term.Local(int slot, _, _, _), var member, _)
                            && slot == NameContext.THIS) {
                        names.add(member.name());
                    }
                });
        return names;
    }

    private CompiledRule rule(RuleDefinition rule) {
        var setting = NameContexts.ofChange(release, object);
        trigger(rule.on(), rule.then());
        var whenText = rule.when();
        sandpiper.logic.run.Code when = null;
        if (whenText != null) {
            var checked = Checker.condition(whenText.text(), setting);
            Reports.add(whenText, checked.problems(), diagnostics);
            when = Compiler.compile(checked);
        }
        var then = StepChecker.checkWithin(rule.then().text(), setting);
        Reports.add(rule.then(), then.problems(), diagnostics);
        return new CompiledRule(rule, when, StepCode.compile(then));
    }

    private void trigger(Trigger trigger, LogicText otherwise) {
        var text = Objects.requireNonNullElse(trigger.text(), otherwise);
        for (var name : trigger.fields()) {
            var known = new ArrayList<>(object.fields().names());
            object.parts().forEach(part -> known.add(part.name()));
            if (!known.contains(name)) {
                within(
                        text,
                        name,
                        DefinitionCode.UNKNOWN_FIELD,
                        "on: %s has no field %s.".formatted(object.name(), Quoted.of(name)),
                        Nearest.to(name, known).orElse(null));
            } else if (onRead.contains(object.name() + "." + name)) {
                within(
                        text,
                        name,
                        DefinitionCode.NOT_FOR_THIS_TYPE,
                        "on: %s is worked out each time it is read, so nothing notices when it changes."
                                .formatted(name),
                        null);
            }
        }
    }

    /** Says something of a word within a text; of the whole when the word is not in it. */
    private void within(
            LogicText text,
            String word,
            ProblemCode code,
            String message,
            @Nullable String suggestion) {
        var found = Pattern.compile("\\b" + Pattern.quote(word) + "\\b").matcher(text.text());
        boolean there = found.find();
        int start = there ? text.text().codePointCount(0, found.start()) : 0;
        int length = text.text().codePointCount(0, text.text().length());
        int end = there ? start + word.codePointCount(0, word.length()) : length;
        diagnostics.add(
                Diagnostic.error(
                        text.origin().file(),
                        text.origin().place(start, end),
                        code,
                        message,
                        suggestion));
    }
}
