package sandpiper.logic.syntax;

import java.util.List;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Span;

/**
 * A message that was read.
 *
 * @param parts literal text and expressions, one behind the other
 */
public record ParsedTemplate(List<Expr> parts, List<LogicProblem> problems, Span span) {
    public ParsedTemplate {
        parts = List.copyOf(parts);
        problems = List.copyOf(problems);
    }
}
