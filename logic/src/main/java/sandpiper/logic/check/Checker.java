package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Span;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.syntax.Parsed;
import sandpiper.logic.syntax.Parser;
import sandpiper.logic.syntax.TemplateParser;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;

/** Checks one expression against what it is written about. Never throws on bad text. */
public final class Checker {
    private final Checking checking;
    private final Expressions expressions;
    private final Scope scope;
    private final List<LogicProblem> syntax = new ArrayList<>();

    private Checker(NameContext setting) {
        this.checking = new Checking(setting.world());
        this.expressions = new Expressions(checking);
        this.scope = Scopes.of(setting, checking);
    }

    /** An expression of whatever type. */
    public static CheckedTerm check(String text, NameContext setting) {
        return new Checker(setting)
                .run(Parser.parse(text), (all, held) -> all.term(held.expr(), held.scope()));
    }

    /** An expression that must come to true or false. */
    public static CheckedTerm condition(String text, NameContext setting) {
        return new Checker(setting)
                .run(
                        Parser.parse(text),
                        (all, held) -> {
                            var term = all.condition(held.expr(), held.scope());
                            new Contradictions(all.checking()).look(term);
                            return term;
                        });
    }

    /** A check: a condition that says so when a field it compares may be empty. */
    public static CheckedTerm check(String text, NameContext setting, boolean warnOfEmptiness) {
        var checked = condition(text, setting);
        if (!warnOfEmptiness || !checked.isAccepted()) {
            return checked;
        }
        var problems = new ArrayList<>(checked.problems());
        problems.addAll(Emptiness.warnings(checked.term(), text));
        return new CheckedTerm(
                checked.term(), problems, checked.slots(), checked.meanings(), checked.scopes());
    }

    /** An expression whose value goes into something of a type. */
    public static CheckedTerm value(String text, NameContext setting, LogicType wanted) {
        return new Checker(setting)
                .run(
                        Parser.parse(text),
                        (all, held) -> all.assigned(held.expr(), held.scope(), wanted));
    }

    /** A message with expressions in braces. */
    public static CheckedTerm template(String text, NameContext setting) {
        var checker = new Checker(setting);
        var parsed = TemplateParser.parse(text);
        checker.syntax.addAll(parsed.problems());
        var term = checker.expressions.template(parsed, checker.scope);
        return checker.result(term, new Span(0, text.codePointCount(0, text.length())));
    }

    /** What stands in a text with where it may look names up. */
    record Held(Expr expr, Scope scope) {}

    private CheckedTerm run(Parsed parsed, BiFunction<Expressions, Held, Term> reading) {
        syntax.addAll(parsed.problems());
        var term = reading.apply(expressions, new Held(parsed.expr(), scope));
        return result(term, parsed.expr().span());
    }

    private CheckedTerm result(Term term, Span all) {
        checking.scopes().putIfAbsent(new Span(0, Math.max(all.end(), 0)), scope);
        var problems = new ArrayList<>(syntax);
        // What could not be read has no type to complain about.
        checking.problems().stream()
                .filter(problem -> syntax.isEmpty() || problem.code() != LogicCode.NOT_A_CONDITION)
                .forEach(problems::add);
        problems.sort(Comparator.comparingInt(problem -> problem.span().start()));
        return new CheckedTerm(
                term, problems, checking.slots(), checking.meanings(), checking.scopes());
    }

    /** Reports what is not true or false where a condition is wanted. */
    static boolean isCondition(Term term, Checking checking) {
        if (term.type() == Simple.BOOLEAN || term.type().isOpen()) {
            return true;
        }
        if (NameResolver.isUncalled(term, checking)) {
            return false;
        }
        @Nullable String path = TermText.of(term);
        checking.error(
                LogicCode.NOT_A_CONDITION,
                term.span(),
                "%s is %s, not true or false; compare it with something."
                        .formatted(
                                path == null || term instanceof Term.Constant ? "This" : path,
                                term.type().described()));
        return false;
    }
}
