package sandpiper.logic.syntax;

import java.util.List;
import sandpiper.logic.LogicProblem;

/**
 * What reading a text came to.
 *
 * @param expr the tree, with {@link Expr.Unreadable} where something could not be read
 * @param problems what was wrong, in the order of the text; empty when all could be read
 */
public record Parsed(Expr expr, List<LogicProblem> problems) {
    public Parsed {
        problems = List.copyOf(problems);
    }
}
