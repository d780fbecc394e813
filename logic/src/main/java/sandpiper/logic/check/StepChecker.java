package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.syntax.Step;
import sandpiper.logic.syntax.StepParser;
import sandpiper.logic.syntax.TemplateParser;
import sandpiper.logic.term.Act;
import sandpiper.logic.term.Term;
import sandpiper.logic.term.Terms;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.RecordType;

/** Checks the steps of a rule or a function. Never throws on bad text. */
public final class StepChecker {
    private final Checking checking;
    private final Expressions expressions;
    private final List<LogicProblem> templateProblems = new ArrayList<>();

    private final FunctionCalls calls;
    private final Emissions emissions;
    private final @Nullable FunctionType function;

    private StepChecker(NameContext setting, @Nullable FunctionType function) {
        this.checking = new Checking(setting.world());
        this.expressions = new Expressions(checking);
        this.calls = new FunctionCalls(checking, expressions);
        this.emissions = new Emissions(checking, expressions);
        this.function = function;
    }

    /** Reads and checks steps about a record. */
    public static CheckedSteps check(String text, NameContext setting) {
        return check(text, setting, null);
    }

    /** The same as what a function does, whose parameters are names of the setting. */
    public static CheckedSteps check(
            String text, NameContext setting, @Nullable FunctionType function) {
        var parsed = StepParser.parse(text);
        var checker = new StepChecker(setting, function);
        var scope = Scopes.of(setting, checker.checking);
        checker.checking.scopes().put(new Span(0, text.codePointCount(0, text.length())), scope);
        var acts = checker.steps(parsed.steps(), scope);
        checker.warnOfUnusedParameters(acts, scope);
        checker.requireReturn(acts, new Span(0, text.codePointCount(0, text.length())));
        var problems = new ArrayList<>(parsed.problems());
        problems.addAll(checker.templateProblems);
        problems.addAll(checker.checking.problems());
        problems.sort(Comparator.comparingInt(problem -> problem.span().start()));
        return new CheckedSteps(
                acts,
                problems,
                checker.checking.slots(),
                checker.checking.meanings(),
                checker.checking.scopes());
    }

    /** A function that gives something back must do so on every way through it. */
    private void requireReturn(List<Act> acts, Span whole) {
        var returns = function == null ? null : function.returns();
        if (returns != null && !ends(acts)) {
            checking.error(
                    LogicCode.NO_RETURN,
                    acts.isEmpty() ? whole : acts.getLast().span(),
                    "%s returns %s, but not on every way through it; end each with return."
                            .formatted(
                                    java.util.Objects.requireNonNull(function).name(),
                                    returns.described()));
        }
    }

    private void warnOfUnusedParameters(List<Act> acts, Scope scope) {
        if (function == null) {
            return;
        }
        for (var parameter : function.parameters()) {
            var used = new boolean[1];
            if (scope.names().get(parameter.name()) instanceof Term.Local local) {
                Act.terms(acts, term -> used[0] |= Terms.uses(term, local));
            }
            if (!used[0]) {
                checking.warn(
                        LogicCode.UNUSED_NAME,
                        new Span(0, 0),
                        "The parameter %s of %s is never used."
                                .formatted(parameter.name(), function.name()),
                        null);
            }
        }
    }

    /** Whether nothing behind these steps is ever reached. */
    private static boolean ends(List<Act> acts) {
        return acts.stream()
                .anyMatch(act ->
                        switch (act) {
                            case Act.Return _ -> true;
                            case Act.Reject reject -> reject.condition() == null;
                            case Act.If choice ->
                                    ends(choice.otherwise())
                                            && choice.branches().stream()
                                                    .allMatch(branch -> ends(branch.acts()));
                            default -> false;
                        });
    }

    private List<Act> steps(List<Step> steps, Scope outer) {
        var scope = outer.inner();
        var acts = new ArrayList<Act>();
        var lets = new ArrayList<Act.Let>();
        boolean told = false;
        for (var step : steps) {
            if (!told && ends(acts)) {
                told = true;
                checking.warn(
                        LogicCode.UNREACHABLE,
                        step.span(),
                        "This is never reached: what stands before it ends here.",
                        null);
            }
            checking.scopes().put(step.span(), scope);
            var act = act(step, scope);
            if (act != null) {
                acts.add(act);
                if (act instanceof Act.Let let) {
                    lets.add(let);
                }
            }
        }
        lets.forEach(let -> warnOfUnused(let, acts));
        return acts;
    }

    private void warnOfUnused(Act.Let let, List<Act> acts) {
        var used = new boolean[1];
        Act.terms(acts, term -> used[0] |= Terms.uses(term, let.local()));
        if (!used[0]) {
            checking.warn(
                    LogicCode.UNUSED_NAME,
                    let.local().span(),
                    "%s is never used.".formatted(let.local().name()),
                    null);
        }
    }

    private @Nullable Act act(Step step, Scope scope) {
        return switch (step) {
            case Step.Let let -> let(let, scope);
            case Step.Set set -> set(set, scope);
            case Step.If choice -> choice(choice, scope);
            case Step.ForEach loop -> loop(loop, scope);
            case Step.Create create -> create(create, scope);
            case Step.Save save -> save(save, scope);
            case Step.Update update -> update(update, scope);
            case Step.Retire retire -> retire(retire, scope);
            case Step.Transition transition -> transition(transition, scope);
            case Step.Reject reject -> {
                var written = reject.condition();
                var condition = written == null ? null : expressions.condition(written, scope);
                yield new Act.Reject(
                        condition,
                        message(reject.message(), scope),
                        at(reject.at(), scope),
                        reject.span());
            }
            case Step.Warn warn ->
                    new Act.Warn(message(warn.message(), scope), at(warn.at(), scope), warn.span());
            case Step.Note note -> new Act.Note(message(note.value(), scope), note.span());
            case Step.Call call -> call(call, scope);
            case Step.Return end -> end(end, scope);
            case Step.Emit emit -> emissions.check(emit, scope);
        };
    }

    private @Nullable Act call(Step.Call call, Scope scope) {
        var called = calls.check(call, scope);
        var as = call.as();
        if (called == null) {
            unknown(as, call.span(), scope);
            return null;
        }
        var returns = called.function().returns();
        if (as != null && returns == null) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    call.span(),
                    "%s returns nothing that could have a name."
                            .formatted(called.function().name()));
        }
        return new Act.Call(
                called.object(),
                called.function(),
                called.record(),
                called.arguments(),
                as == null || returns == null ? null : named(as, call.span(), returns, scope),
                call.span());
    }

    /** The name of something that is not known, so that using it is no second mistake. */
    private void unknown(@Nullable String name, Span span, Scope scope) {
        if (name != null) {
            named(name, span, LogicType.Simple.ANY, scope);
        }
    }

    private @Nullable Act end(Step.Return end, Scope scope) {
        var written = end.value();
        if (function == null) {
            checking.error(
                    LogicCode.NOT_A_FUNCTION, end.span(), "Only a function returns something.");
            return null;
        }
        var returns = function.returns();
        if ((returns == null) != (written == null)) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    end.span(),
                    returns == null
                            ? "%s returns nothing; say what it returns, or write return alone."
                                    .formatted(function.name())
                            : "%s returns %s; write it behind return."
                                    .formatted(function.name(), returns.described()));
        }
        if (written == null) {
            return new Act.Return(null, end.span());
        }
        return new Act.Return(
                returns == null
                        ? expressions.term(written, scope)
                        : expressions.assigned(written, scope, returns),
                end.span());
    }

    private Act let(Step.Let let, Scope scope) {
        var value = expressions.term(let.value(), scope);
        if (scope.names().containsKey(let.name())) {
            checking.error(
                    LogicCode.DUPLICATE_NAME,
                    let.nameSpan(),
                    "%s has a value already; choose another name."
                            .formatted(Quoted.of(let.name())));
        }
        warnOfHidden(let.name(), let.nameSpan(), scope);
        return new Act.Let(
                named(let.name(), let.nameSpan(), value.type(), scope), value, let.span());
    }

    /** A name of one's own that a field has too: from here on the field is {@code this.name}. */
    private void warnOfHidden(String name, Span span, Scope scope) {
        for (Scope at = scope; at != null; at = at.outer()) {
            var record = at.record();
            if (record != null && record.member(name).isPresent()) {
                checking.warn(
                        LogicCode.HIDDEN_NAME,
                        span,
                        "%s is a field of %s as well, which can be reached only as this.%s from here on; choose another name."
                                .formatted(name, record.name(), name),
                        null);
                return;
            }
        }
    }

    private Term.Local named(String name, Span span, LogicType type, Scope scope) {
        var local = checking.local(name, type, span);
        scope.put(name, local);
        checking.meanings().put(span, local);
        return local;
    }

    private @Nullable Act set(Step.Set set, Scope scope) {
        var target = expressions.term(set.target(), scope);
        if (!(target instanceof Term.Read read)) {
            expressions.term(set.value(), scope);
            if (!isReported(target)) {
                checking.error(
                        LogicCode.NOT_ASSIGNABLE,
                        target.span(),
                        "Only a field of a record can be set, as in set state = \"Open\".");
            }
            return null;
        }
        var place = set.target() instanceof Expr.Path path ? path.memberSpan() : target.span();
        var value = assigned(read.member(), set.value(), scope, place);
        return new Act.Set(read.source(), read.member(), value, set.span());
    }

    /** Whether a term stands for something that was not found, which is reported already. */
    private static boolean isReported(Term term) {
        return term instanceof Term.Constant constant && !constant.literal();
    }

    private Term assigned(Member member, Expr value, Scope scope, Span span) {
        var reason = member.fixed();
        if (reason != null) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    span,
                    "%s %s and cannot be set.".formatted(member.name(), reason));
        }
        if (isList(member)) {
            return items(member, value, scope);
        }
        return expressions.assigned(value, scope, member.type(), member.name());
    }

    private static boolean isList(Member member) {
        return member.type() instanceof LogicType.ListOf;
    }

    /** Line items written as a list of contexts. */
    private Term items(Member part, Expr value, Scope scope) {
        var term = expressions.term(value, scope);
        var item = term.type().itemType();
        if (!item.isOpen() && !(item instanceof LogicType.ContextOf)) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    term.span(),
                    "%s takes line items, as in [{ quantity: 1 }], but this is %s."
                            .formatted(part.name(), term.type().described()));
        } else if (item instanceof LogicType.ContextOf(var entries)
                && entries != null
                && part.type().itemType() instanceof RecordOf(var record)) {
            for (var name : entries.keySet()) {
                member(record, name, term.span());
            }
        }
        return term;
    }

    private Act choice(Step.If choice, Scope scope) {
        var branches = new ArrayList<Act.Branch>();
        for (var branch : choice.branches()) {
            var condition = expressions.condition(branch.condition(), scope);
            var again =
                    branches.stream()
                            .anyMatch(one -> Contradictions.isCovered(one.condition(), condition));
            if (again) {
                checking.warn(
                        LogicCode.UNREACHABLE,
                        branch.condition().span(),
                        "This is never reached: whenever it holds, a condition before it does.",
                        null);
            }
            branches.add(new Act.Branch(condition, steps(branch.steps(), scope)));
        }
        return new Act.If(branches, steps(choice.otherwise(), scope), choice.span());
    }

    private Act loop(Step.ForEach loop, Scope scope) {
        var inside = scope.inner();
        warnOfHidden(loop.name(), loop.nameSpan(), scope);
        var source =
                expressions.source(
                        new Expr.Iterator(loop.name(), loop.nameSpan(), loop.list(), loop.last()),
                        inside);
        return new Act.ForEach(source, steps(loop.steps(), inside), loop.span());
    }

    private @Nullable Act create(Step.Create create, Scope scope) {
        var part = part(create.object(), scope);
        if (part.isPresent()) {
            var read = part.get();
            var record = ((RecordOf) read.type().itemType()).record();
            var values = values(record, create.values(), scope);
            requireAll(record, create, values);
            var as = as(create.as(), record, create.span(), scope);
            return new Act.AddItem(read.source(), read.member(), values, as, create.span());
        }
        var object = object(create.object(), create.objectSpan());
        if (object == null) {
            unknown(create.as(), create.span(), scope);
            return null;
        }
        var values = values(object, create.values(), scope);
        requireAll(object, create, values);
        return new Act.Create(
                object, values, as(create.as(), object, create.span(), scope), create.span());
    }

    /** What must have a value and gets it in no other way can only be given here. */
    private void requireAll(RecordType record, Step.Create create, List<Act.Assign> values) {
        var given = new HashSet<String>();
        values.forEach(value -> given.add(value.member().name()));
        create.values().forEach(entry -> given.add(entry.name()));
        var missing =
                record.memberNames().stream()
                        .filter(name ->
                                record.member(name)
                                        .filter(member -> member.mustBeGiven(given))
                                        .isPresent())
                        .filter(name -> !given.contains(name))
                        .toList();
        if (!missing.isEmpty()) {
            checking.warn(
                    LogicCode.NEEDS_VALUE,
                    create.objectSpan(),
                    "%s needs %s; without %s nothing is created, unless it is set before the end."
                            .formatted(
                                    record.name(),
                                    String.join(", ", missing),
                                    missing.size() == 1 ? "it" : "them"),
                    null);
        }
    }

    /** The part of the record that a name stands for, if it does. */
    private Optional<Term.Read> part(String name, Scope from) {
        for (Scope scope = from; scope != null; scope = scope.outer()) {
            var item = scope.item();
            var record = scope.record();
            if (item == null || record == null) {
                continue;
            }
            var member = record.member(name);
            if (member.isPresent() && isList(member.get()) && member.get().reference() == null) {
                return Optional.of(new Term.Read(item, member.get(), item.span()));
            }
        }
        return Optional.empty();
    }

    private Term.@Nullable Local as(
            @Nullable String name, RecordType object, Span span, Scope scope) {
        return name == null ? null : named(name, span, new RecordOf(object), scope);
    }

    private @Nullable RecordType object(String name, Span span) {
        var found = checking.world().object(name);
        if (found.isEmpty()) {
            checking.error(
                    LogicCode.UNKNOWN_NAME,
                    span,
                    "There is no object %s.".formatted(Quoted.of(name)),
                    Nearest.to(name, checking.world().objectNames()).orElse(null));
        }
        return found.orElse(null);
    }

    private @Nullable Act save(Step.Save save, Scope scope) {
        var object = object(save.object(), save.objectSpan());
        if (object == null) {
            unknown(save.as(), save.span(), scope);
            return null;
        }
        var values = values(object, save.values(), scope);
        var key = object.keyMember();
        boolean hasKey =
                key.isEmpty()
                        || values.stream()
                                .anyMatch(value -> value.member().name().equals(key.get()));
        if (!hasKey) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    save.objectSpan(),
                    "To save by key, %s needs its key %s among the values."
                            .formatted(object.name(), key.get()));
        }
        return new Act.Save(object, values, as(save.as(), object, save.span(), scope), save.span());
    }

    private List<Act.Assign> values(RecordType record, List<Expr.Entry> entries, Scope scope) {
        var values = new ArrayList<Act.Assign>();
        for (var entry : entries) {
            var member = member(record, entry.name(), entry.nameSpan());
            if (member == null) {
                expressions.term(entry.value(), scope);
            } else {
                values.add(
                        new Act.Assign(
                                member, assigned(member, entry.value(), scope, entry.nameSpan())));
            }
        }
        return values;
    }

    private @Nullable Member member(RecordType record, String name, Span span) {
        var member = record.member(name);
        if (member.isEmpty() || member.get().reference() != null) {
            checking.error(
                    LogicCode.UNKNOWN_MEMBER,
                    span,
                    "%s has no field %s.".formatted(record.name(), Quoted.of(name)),
                    Nearest.to(name, record.memberNames()).orElse(null));
            return null;
        }
        return member.get();
    }

    private @Nullable Act update(Step.Update update, Scope scope) {
        var record = expressions.term(update.record(), scope);
        if (!(record.type() instanceof RecordOf(var type))) {
            notARecord(record);
            return null;
        }
        return new Act.Update(record, values(type, update.values(), scope), update.span());
    }

    private void notARecord(Term term) {
        if (!isReported(term)) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    term.span(),
                    "This must be a record, but is %s.".formatted(term.type().described()));
        }
    }

    private @Nullable Act retire(Step.Retire retire, Scope scope) {
        var record = expressions.term(retire.record(), scope);
        if (!(record.type() instanceof RecordOf)) {
            notARecord(record);
            return null;
        }
        return new Act.Retire(record, retire.span());
    }

    private @Nullable Act transition(Step.Transition transition, Scope scope) {
        var written = transition.record();
        var record =
                written == null
                        ? expressions.term(new Expr.Name("this", transition.span()), scope)
                        : expressions.term(written, scope);
        if (!(record.type() instanceof RecordOf(var type))) {
            notARecord(record);
            return null;
        }
        if (!type.transitions().contains(transition.name())) {
            checking.error(
                    LogicCode.UNKNOWN_TRANSITION,
                    transition.nameSpan(),
                    type.transitions().isEmpty()
                            ? "%s has no lifecycle.".formatted(type.name())
                            : "%s has no transition %s; it has %s."
                                    .formatted(
                                            type.name(),
                                            Quoted.of(transition.name()),
                                            String.join(", ", type.transitions())),
                    Nearest.to(transition.name(), type.transitions()).orElse(null));
        }
        return new Act.Transition(record, transition.name(), transition.span());
    }

    /** A message; text in it is a template. */
    private Term message(Expr expr, Scope scope) {
        if (!(expr instanceof Expr.TextLiteral text)) {
            return expressions.term(expr, scope);
        }
        var before = checking.problems().size();
        var template = TemplateParser.parse(text.value());
        // Places in the template count from behind the opening quote.
        int by = text.span().start() + 1;
        template.problems().forEach(problem -> templateProblems.add(problem.shifted(by)));
        var term = expressions.template(template, scope);
        var problems = checking.problems();
        for (int i = before; i < problems.size(); i++) {
            problems.set(i, problems.get(i).shifted(by));
        }
        return new Term.Template(((Term.Template) term).parts(), text.span());
    }

    private List<String> at(@Nullable Expr field, Scope scope) {
        if (field == null) {
            return List.of();
        }
        var term = expressions.term(field, scope);
        if (term instanceof Term.Read(Term.Local _, var member, _)) {
            return List.of(member.name());
        }
        if (term instanceof Term.Local local
                && function != null
                && function.parameter(local.name()).isPresent()) {
            return List.of(local.name());
        }
        if (!isReported(term)) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    field.span(),
                    "Behind at stands a field of the record, as in at departure.");
        }
        return List.of();
    }
}
