package sandpiper.logic.filter;

import java.util.List;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.condition.Condition;

/** What checking a condition came to: the condition, or at least one problem. */
public sealed interface Checked {
    record Accepted(Condition condition) implements Checked {}

    record Rejected(List<LogicProblem> problems) implements Checked {
        public Rejected {
            problems = List.copyOf(problems);
        }
    }
}
