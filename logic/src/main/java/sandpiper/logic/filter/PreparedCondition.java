package sandpiper.logic.filter;

import java.time.Clock;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Span;
import sandpiper.logic.condition.BoundInput;
import sandpiper.logic.condition.Selections;
import sandpiper.logic.run.BudgetException;
import sandpiper.logic.run.Code;
import sandpiper.logic.run.Compiler;
import sandpiper.logic.run.Evaluation;
import sandpiper.logic.run.RecordSource;

/** A condition that was read and checked, to be asked at different times. */
final class PreparedCondition {
    private final Checked.@Nullable Rejected rejected;
    private final @Nullable Selections selections;
    private final List<Code> values;
    private final Span span;

    private PreparedCondition(
            Checked.@Nullable Rejected rejected,
            @Nullable Selections selections,
            List<Code> values,
            Span span) {
        this.rejected = rejected;
        this.selections = selections;
        this.values = values;
        this.span = span;
    }

    static PreparedCondition rejected(List<LogicProblem> problems) {
        return new PreparedCondition(
                new Checked.Rejected(problems), null, List.of(), new Span(0, 0));
    }

    static PreparedCondition accepted(Selections selections, int slots, Span span) {
        return new PreparedCondition(null, selections, codes(selections.values(), slots), span);
    }

    boolean isAccepted() {
        return rejected == null;
    }

    /** The condition with its values as they are now. */
    Checked bind(Clock clock) {
        if (rejected != null) {
            return rejected;
        }
        try {
            return new Checked.Accepted(
                    Objects.requireNonNull(
                            Objects.requireNonNull(selections)
                                    .bind(null, values(values, clock), clock.getZone())
                                    .condition()));
        } catch (BudgetException e) {
            return new Checked.Rejected(
                    List.of(new LogicProblem(LogicCode.TOO_COSTLY, span, e.said())));
        }
    }

    static List<Code> codes(List<BoundInput> needed, int slots) {
        return needed.stream().map(one -> Compiler.compile(one, slots)).toList();
    }

    static List<Object> values(List<Code> codes, Clock clock) {
        var run =
                new Evaluation(
                        clock.instant(),
                        clock.getZone(),
                        RecordSource.NONE,
                        Evaluation.BUDGET_OF_FILTERS);
        return codes.stream().map(code -> code.run(code.frame(run))).toList();
    }
}
