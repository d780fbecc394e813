package sandpiper.logic.assist;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Span;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.check.Scope;
import sandpiper.logic.check.StepChecker;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.FunctionType;

/** A logic text as far as it can be understood, whatever kind it is of. */
public record Analysis(
        List<LogicProblem> problems, Map<Span, Term> meanings, Map<Span, Scope> scopes) {

    /** Looks at a text. Never throws on bad text. */
    public static Analysis of(TextKind kind, String text, NameContext setting) {
        if (kind == TextKind.STEPS) {
            var checked = StepChecker.check(text, setting);
            return new Analysis(checked.problems(), checked.meanings(), checked.scopes());
        }
        var checked =
                switch (kind) {
                    case CONDITION -> Checker.check(text, setting, true);
                    case MESSAGE -> Checker.template(text, setting);
                    default -> Checker.check(text, setting);
                };
        return new Analysis(checked.problems(), checked.meanings(), checked.scopes());
    }

    /** Looks at the body of a function. */
    public static Analysis ofBody(String text, NameContext setting, FunctionType function) {
        var checked = StepChecker.check(text, setting, function);
        return new Analysis(checked.problems(), checked.meanings(), checked.scopes());
    }

    /** The innermost scope around a place. */
    Scope scopeAt(int place) {
        Span best = null;
        for (var span : scopes.keySet()) {
            boolean around = span.start() <= place && place <= span.end();
            if (around
                    && (best == null || span.end() - span.start() <= best.end() - best.start())) {
                best = span;
            }
        }
        return best == null
                ? scopes.values().iterator().next()
                : Objects.requireNonNull(scopes.get(best));
    }
}
