package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
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

/** Checks the steps of a rule or a function. Never throws on bad text. */
public final class StepChecker {
    private final Checking checking;
    private final Expressions expressions;
    private final List<LogicProblem> templateProblems = new ArrayList<>();

    private final LocalNames names;
    private final RecordSteps records;
    private final FunctionCalls calls;
    private final Emissions emissions;
    private final @Nullable FunctionType function;
    private final boolean isPartOfChange;

    private StepChecker(
            NameContext setting, @Nullable FunctionType function, boolean isPartOfChange) {
        this.isPartOfChange = isPartOfChange;
        this.checking = new Checking(setting.world());
        checking.ofSteps();
        this.expressions = new Expressions(checking);
        this.names = new LocalNames(checking);
        this.records = new RecordSteps(checking, expressions, names);
        this.calls = new FunctionCalls(checking, expressions);
        this.emissions = new Emissions(checking, expressions);
        this.function = function;
    }

    /** Reads and checks steps about a record. */
    public static CheckedSteps check(String text, NameContext setting) {
        return check(text, setting, null);
    }

    /** The same of steps that are part of a change, as those of a rule are. */
    public static CheckedSteps checkWithin(String text, NameContext setting) {
        return check(text, setting, null, true);
    }

    /** The same as what a function does, whose parameters are names of the setting. */
    public static CheckedSteps check(
            String text, NameContext setting, @Nullable FunctionType function) {
        return check(text, setting, function, setting.changes());
    }

    private static CheckedSteps check(
            String text,
            NameContext setting,
            @Nullable FunctionType function,
            boolean isPartOfChange) {
        var parsed = StepParser.parse(text);
        var checker = new StepChecker(setting, function, isPartOfChange);
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
            case Step.Set set -> records.set(set, scope);
            case Step.If choice -> choice(choice, scope);
            case Step.ForEach loop -> loop(loop, scope);
            case Step.Create create -> records.create(create, scope);
            case Step.Save save -> records.save(save, scope);
            case Step.Update update -> records.update(update, scope);
            case Step.Retire retire -> records.retire(retire, scope);
            case Step.Transition transition -> records.transition(transition, scope);
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

    private @Nullable Act ask(Step.Call call, Scope scope) {
        var asked = calls.checkOutside(call, scope);
        var as = call.as();
        if (asked == null) {
            names.unknown(as, call.span(), scope);
            return null;
        }
        var returns = asked.function().returns();
        requireKept(asked.function(), asked.function().written(), call.span());
        return new Act.Ask(
                asked.function(),
                asked.arguments(),
                named(call, returns, asked.function().written() + " answers", scope),
                call.span());
    }

    /** The name that what comes of a call gets, if any; something must come of it then. */
    private Term.@Nullable Local named(
            Step.Call call, @Nullable LogicType returns, String what, Scope scope) {
        var as = call.as();
        if (as == null) {
            return null;
        }
        if (returns == null) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    call.span(),
                    "%s nothing that could have a name.".formatted(what));
            names.unknown(as, call.span(), scope);
            return null;
        }
        return names.named(as, call.span(), returns, scope);
    }

    /** A change is not kept waiting for an outside service, once for every record. */
    private void requireKept(FunctionType called, String written, Span span) {
        if (isPartOfChange && called.asksAnew()) {
            checking.error(
                    LogicCode.ASKS_IN_CHANGE,
                    span,
                    "%s waits for an outside service at every call, and this is part of a change;"
                                    .formatted(written)
                            + " say in its connection how long answers are kept (keep: PT1H), or"
                            + " call it in a function or in a handler that runs after the change.");
        }
    }

    private @Nullable Act call(Step.Call call, Scope scope) {
        if (calls.asksOutside(call, scope)) {
            return ask(call, scope);
        }
        var called = calls.check(call, scope);
        var as = call.as();
        if (called == null) {
            names.unknown(as, call.span(), scope);
            return null;
        }
        requireKept(called.function(), called.function().name(), call.span());
        var returns = called.function().returns();
        return new Act.Call(
                called.object(),
                called.function(),
                called.record(),
                called.arguments(),
                named(call, returns, called.function().name() + " returns", scope),
                call.span());
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
        names.warnOfHidden(let.name(), let.nameSpan(), scope);
        return new Act.Let(
                names.named(let.name(), let.nameSpan(), value.type(), scope), value, let.span());
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
        names.warnOfHidden(loop.name(), loop.nameSpan(), scope);
        var source =
                expressions.source(
                        new Expr.Iterator(loop.name(), loop.nameSpan(), loop.list(), loop.last()),
                        inside);
        return new Act.ForEach(source, steps(loop.steps(), inside), loop.span());
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
        if (!RecordSteps.isReported(term)) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    field.span(),
                    "Behind at stands a field of the record, as in at departure.");
        }
        return List.of();
    }
}
