package sandpiper.logic.check;

import java.util.List;
import java.util.Map;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Span;
import sandpiper.logic.term.Term;

/**
 * What checking an expression came to.
 *
 * @param term the typed tree; where something is wrong it comes to null
 * @param problems errors and warnings in the order of the text
 * @param slots how many places its frame needs
 * @param meanings what the names in the text stand for
 * @param scopes which names can be used in which stretch, inner ones behind outer ones
 */
public record CheckedTerm(
        Term term,
        List<LogicProblem> problems,
        int slots,
        Map<Span, Term> meanings,
        Map<Span, Scope> scopes) {
    public CheckedTerm {
        problems = List.copyOf(problems);
    }

    public boolean isAccepted() {
        return problems.stream().noneMatch(LogicProblem::isError);
    }
}
