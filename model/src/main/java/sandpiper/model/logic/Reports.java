package sandpiper.model.logic;

import java.util.List;
import sandpiper.logic.LogicProblem;
import sandpiper.model.Diagnostic;
import sandpiper.model.definition.LogicText;

/** Says what is wrong with a logic text at its place in the file. */
public final class Reports {
    private Reports() {}

    /** Adds a diagnostic for each problem. */
    public static void add(LogicText text, List<LogicProblem> problems, List<Diagnostic> into) {
        for (var problem : problems) {
            var place = text.origin().place(problem.span().start(), problem.span().end());
            into.add(
                    new Diagnostic(
                            text.origin().file(),
                            place.line(),
                            place.column(),
                            place.endLine(),
                            place.endColumn(),
                            problem.isError()
                                    ? Diagnostic.Severity.ERROR
                                    : Diagnostic.Severity.WARNING,
                            problem.code().id(),
                            problem.message(),
                            problem.suggestion()));
        }
    }
}
