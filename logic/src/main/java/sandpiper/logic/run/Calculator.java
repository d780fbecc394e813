package sandpiper.logic.run;

import java.time.Clock;
import java.util.List;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.check.CheckedTerm;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.value.Nothing;

/** Works out expressions that stand alone. */
public final class Calculator {
    private final Clock clock;

    /** Takes the moment and the zone from a clock. */
    public Calculator(Clock clock) {
        this.clock = clock;
    }

    /**
     * What an expression came to.
     *
     * @param value {@link Nothing#NULL} also when it could not be read
     * @param problems what the checker says; an error about types does not keep it from being
     *     worked out, for then the standard has it come to null
     * @param notes why something came to null
     */
    public record Answer(Object value, List<LogicProblem> problems, List<String> notes) {}

    /** Reads, checks and runs an expression. Never throws on bad text. */
    public Answer evaluate(String text) {
        return run(Checker.check(text, NameContext.ALONE));
    }

    private Answer run(CheckedTerm checked) {
        var run = new Evaluation(clock.instant(), clock.getZone(), RecordSource.NONE);
        try {
            var code = Compiler.compile(checked);
            return new Answer(code.run(code.frame(run)), checked.problems(), run.notes());
        } catch (BudgetException e) {
            run.note(e.said());
            return new Answer(Nothing.NULL, checked.problems(), run.notes());
        }
    }
}
