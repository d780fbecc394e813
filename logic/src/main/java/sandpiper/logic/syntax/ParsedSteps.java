package sandpiper.logic.syntax;

import java.util.List;
import sandpiper.logic.LogicProblem;

/** What reading steps came to; steps that could not be read are left out. */
public record ParsedSteps(List<Step> steps, List<LogicProblem> problems) {
    public ParsedSteps {
        steps = List.copyOf(steps);
        problems = List.copyOf(problems);
    }
}
