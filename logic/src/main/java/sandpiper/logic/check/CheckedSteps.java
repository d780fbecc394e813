package sandpiper.logic.check;

import java.util.List;
import java.util.Map;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Span;
import sandpiper.logic.term.Act;
import sandpiper.logic.term.Term;

/** What checking steps came to; see {@link CheckedTerm}. */
public record CheckedSteps(
        List<Act> acts,
        List<LogicProblem> problems,
        int slots,
        Map<Span, Term> meanings,
        Map<Span, Scope> scopes) {
    public CheckedSteps {
        acts = List.copyOf(acts);
        problems = List.copyOf(problems);
    }

    public boolean isAccepted() {
        return problems.stream().noneMatch(LogicProblem::isError);
    }
}
